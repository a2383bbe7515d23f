import { expect, type Page } from '@playwright/test';
import { accessible, pick, picture, scan, signIn, status, test } from './helpers';

const editedTag = (page: Page) => page.locator('.field-editor .field-tag');
/** Types into the field that is open and goes on to the next one that is asked for. */
async function fillIn(page: Page, tag: string, text: string): Promise<void> {
  await expect(editedTag(page)).toHaveValue(tag);
  if (text) await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

test('a book is catalogued from its title page by keyboard alone', async ({ page }) => {
  await signIn(page);
  await page.goto('/catalogue');
  await expect(page.getByRole('button', { name: 'Add record' })).toBeVisible();
  await page.keyboard.press('n');
  await page.getByRole('menuitem', { name: 'Book', exact: true }).waitFor();
  await page.keyboard.press('Enter');
  await expect(editedTag(page)).toHaveValue('020');
  await page.keyboard.type('9780306406157', { delay: 70 });
  await page.keyboard.press('Enter');
  await fillIn(page, '082', '639.1');
  await fillIn(page, '100', 'Fen, Hobart,');
  await fillIn(page, '245', 'The eel traps of Osmere :$ba study /$cHobart Fen.');
  await fillIn(page, '250', '');
  await fillIn(page, '264', 'Osmere :$bReed and Rush,$c2024.');
  await picture(page, 'record-desk');
  await accessible(page);
  await fillIn(page, '300', '90 pages :$billustrations ;$c24 cm');
  await fillIn(page, '490', '');
  await fillIn(page, '504', '');
  await fillIn(page, '520', 'On traps.');
  await expect(editedTag(page)).toHaveValue('650');
  await page.keyboard.press('Escape');
  await expect(page.locator('.field-row', { hasText: /^008/ })).toContainText('s2024');
  await page.keyboard.press('Control+s');
  await expect(status(page)).toContainText('Added “The eel traps of Osmere : a study”');
  await expect(page).toHaveURL(/\/catalogue\/\d+$/);
  await expect(page.locator('.field-row', { hasText: /^245/ })).toContainText('a study');
  // Its headings lead on.
  await expect(page.getByRole('link', { name: 'Fen, Hobart' })).toHaveAttribute('href', /^\/headings\/\d+$/);
  // The way back is open: the entry is undone from the keyboard.
  await page.keyboard.press('Alt+z');
  await page.getByRole('dialog').getByRole('button', { name: /^Undo/ }).click();
  await expect(status(page)).toContainText('Undid');
});

test('a brief record with its copy is scanned in, and told when the book is here', async ({ page }) => {
  await signIn(page);
  await page.goto('/catalogue/brief');
  await pick(page, 'Branch', 'MR');
  await pick(page, 'Location', 'OPEN');
  await scan(page, '9780140449136');
  await expect(page.getByLabel('ISBN')).toHaveValue('9780140449136');
  await expect(page.getByLabel('Title')).toBeFocused();
  await page.keyboard.type('The sluices of Osmere', { delay: 70 });
  await page.getByLabel('Class').fill('627.1');
  await scan(page, '31204770000018');
  await expect(page.locator('.ant-form-item-explain-error')).toContainText('check digit');
  // Scanning it once more does not mean it.
  await scan(page, '31204770000018');
  await expect(page.locator('.ant-form-item-explain-error')).toContainText('check digit');
  await expect(page.getByLabel('Use this barcode anyway')).not.toBeChecked();
  await scan(page, '31204770000017');
  await expect(status(page)).toContainText('Added the brief record “The sluices of Osmere”');
  await expect(page.getByLabel('Title')).toHaveValue('');
  await accessible(page);

  // The same book again: what is here already is told before anything is saved.
  await scan(page, '9780140449136');
  await page.getByLabel('Title').fill('The sluices of Osmere');
  await page.getByLabel('Class').fill('627.1');
  await scan(page, '31204770000025');
  const look = page.getByRole('alert').filter({ hasText: 'Look at this before it is saved' });
  await expect(look).toContainText('1 copy, Millrace');
  await accessible(page);
  await look.getByRole('link', { name: 'The sluices of Osmere' }).click();
  await expect(page.getByRole('heading', { name: 'The sluices of Osmere' })).toBeVisible();
});

test('two records of one title are merged with their copies, and the old number leads on', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/catalogue?show=alike');
  const list = page
    .getByRole('listbox', { name: 'Look-alikes', exact: true })
    .or(page.getByLabel('Look-alikes'))
    .first();
  await expect(list).toBeVisible();
  await page.getByText('Teach yourself rope making').first().click();
  await expect(page.getByRole('heading', { name: 'One title or several?' })).toBeVisible();
  await picture(page, 'look-alike-records');
  await page.getByRole('button', { name: 'Take all that is lacking' }).click();
  await accessible(page);
  const kept = await page
    .locator('.merge-choices input:checked')
    .locator('xpath=ancestor::div[1]')
    .textContent();
  const keptId = /Keep record (\d+)/.exec(kept ?? '')![1]!;
  const both = (await page.locator('.whys li').first().textContent())!.match(/\d+/g)!.slice(0, 2);
  const lostId = both.find((id) => id !== keptId)!;
  await page.getByRole('button', { name: 'Merge 2 records' }).first().click();
  const sheet = page.getByRole('dialog');
  await expect(sheet).toContainText('1 record will be merged into');
  await accessible(page);
  await sheet.getByRole('button', { name: 'Merge 2 records' }).click();
  await expect(status(page)).toContainText('Merged 1 record into “Teach yourself rope making”');
  await page.goto(`/catalogue/${lostId}`);
  await expect(page).toHaveURL(new RegExp(`/catalogue/${keptId}$`));
  await page.getByRole('button', { name: 'Versions' }).click();
  await expect(page.getByRole('region', { name: 'Versions' })).toContainText('Merged 1 record');
  await accessible(page);
  await page.getByRole('button', { name: 'Reading' }).click();
  await expect(page.locator('.reading')).toContainText('Stonehouse, James Walter');
  await accessible(page);
});

test('within a record fields are pasted, moved, undone and done again', async ({ page }) => {
  await signIn(page);
  await page.goto('/catalogue/30');
  const rows = page.locator('.field-row');
  await expect(page.locator('.field-row', { hasText: /^245/ })).toBeVisible();
  const before = await rows.count();
  await page.locator('.field-row', { hasText: /^245/ }).focus();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', '520 ## $aOn <b>eels</b>.\n590 ## $aOurs.');
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expect(rows).toHaveCount(before + 2);
  await expect(page.locator('.field-row', { hasText: /^520/ })).toContainText('On <b>eels</b>.');
  await page.locator('.field-row', { hasText: /^590/ }).focus();
  await page.keyboard.press('Delete');
  await expect(rows).toHaveCount(before + 1);
  await page.keyboard.press('Control+z');
  await page.locator('.field-row', { hasText: /^245/ }).focus();
  await page.keyboard.press('Control+z');
  await expect(rows).toHaveCount(before);
  await page.keyboard.press('Control+y');
  await expect(rows).toHaveCount(before + 2);
});
