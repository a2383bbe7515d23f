import { barcodeFor } from '@osier/core/barcodes';
import { expect, type Page } from '@playwright/test';
import { COPY_BARCODES } from '../demo/barcodes';
import { accessible, pick, picture, scan, signIn, status, test } from './helpers';

/** A scan into the cell that has the focus, and takes codes itself. */
async function scanHere(page: Page, barcode: string): Promise<void> {
  await page.keyboard.type(barcode);
  await page.keyboard.press('Enter');
}
/** Chooses from a short list that is not typed into. */
async function choose(page: Page, label: string, text: string): Promise<void> {
  await page.getByRole('combobox', { name: label, exact: true }).click();
  await page.locator('.ant-select-item-option', { hasText: text }).click();
}
const code = (n: number) => barcodeFor(COPY_BARCODES, 89_000_000 + n);

test('five copies at three branches by keyboard and scanner, then corrected: another place, another part, a swapped label', async ({
  page,
}) => {
  test.slow();
  await signIn(page);
  await page.goto('/catalogue/1040');
  await expect(page.getByRole('button', { name: 'Add several copies' })).toBeVisible();
  await page.keyboard.press('g');
  await expect(page.getByLabel('Barcode 1', { exact: true })).toBeFocused();
  for (let n = 0; n < 5; n++) {
    await expect(page.getByLabel(`Barcode ${n + 1}`, { exact: true })).toBeFocused();
    await scanHere(page, code(n));
  }
  await expect(page.getByLabel('Barcode 5', { exact: true })).toHaveValue(code(4));
  await pick(page, 'Branch 2', 'SH');
  await pick(page, 'Branch 3', 'MR');
  await pick(page, 'Branch 4', 'HB');
  await pick(page, 'Branch 5', 'HB');
  await picture(page, 'several-copies');
  await accessible(page);
  await page.keyboard.press('Control+Enter');
  const sheet = page.getByRole('dialog');
  await expect(sheet).toContainText('5 copies will be added');
  await expect(sheet.getByRole('button', { name: /^Add 5 copies/ })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(status(page)).toContainText('Added 5 copies');

  // One that is in use is told in its cell, and nothing is lost.
  await page.keyboard.press('g');
  await expect(page.getByLabel('Barcode 1', { exact: true })).toBeFocused();
  await scanHere(page, code(0));
  await page.keyboard.press('Control+Enter');
  await expect(page.locator('.grid-problem')).toContainText('is already on');
  await expect(page.getByLabel('Use these barcodes anyway')).toHaveCount(0);
  // The head may take a number that is reserved for a supplier, and means it.
  const reserved = barcodeFor(COPY_BARCODES, 800_550);
  await page.getByLabel('Barcode 1', { exact: true }).fill(reserved);
  await page.keyboard.press('Control+Enter');
  await expect(page.locator('.grid-problem')).toContainText('reserved for Reedling');
  await page.getByLabel('Use these barcodes anyway').check();
  await page.getByRole('button', { name: /^Review 1 copy/ }).click();
  await expect(sheet).toContainText('are taken though it is reserved');
  await sheet.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('button', { name: 'Discard' }).click();

  // Two labels were stuck on each other.
  await page.getByRole('button', { name: `More for ${code(0)}` }).click();
  await page.getByRole('menuitem', { name: 'Change copy' }).click();
  await page.getByLabel('Barcode', { exact: true }).fill(code(1));
  await page.getByLabel('Part or volume').fill('v. 1');
  await page.getByRole('button', { name: 'Save copy' }).click();
  await page.getByRole('button', { name: 'Swap barcodes with it' }).click();
  await expect(status(page)).toContainText('Swapped the barcodes');

  // What it cost abroad is kept in its own currency; what is no price stays as it was typed, and is told.
  await page.getByRole('button', { name: `More for ${code(2)}` }).click();
  await page.getByRole('menuitem', { name: 'Change copy' }).click();
  const price = page.getByLabel('Price', { exact: true });
  await price.fill('dear');
  await price.press('Tab');
  await expect(page.getByText('A price is written 12.50')).toBeVisible();
  await expect(price).toHaveValue('dear');
  await price.fill('eur 12,5');
  await price.press('Tab');
  await expect(price).toHaveValue('EUR 12.50');
  await page.getByRole('button', { name: 'Save copy' }).click();
  await expect(page.locator('.copy-line', { hasText: '12.50 EUR' })).toHaveCount(1);

  // A holding stands elsewhere, under another number.
  await page
    .getByRole('button', { name: /^More for / })
    .first()
    .click();
  await page.getByRole('menuitem', { name: 'Change holding' }).click();
  await page.getByRole('textbox', { name: 'Class' }).fill('999.5');
  await page.getByRole('textbox', { name: 'Staff note' }).fill('Top shelf.');
  await accessible(page);
  await page.getByRole('button', { name: /^Save holding 999.5/ }).click();
  await expect(status(page)).toContainText('Changed a holding');
  await expect(page.locator('.holding-head', { hasText: '999.5' })).toContainText('Top shelf.');
});

test('a library whose barcodes are four letters and four digits sets that up, and uses it', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/set-up?show=house');
  const rules = page.getByRole('group', { name: /^Barcode rule/ });
  await page.getByRole('button', { name: 'Add a barcode rule' }).click();
  await rules.last().getByLabel('Then').fill('AAAA9999');
  await expect(rules.last()).toContainText('4 letters and 4 digits');
  await page.getByRole('button', { name: 'Try on our barcodes' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'barcodes in use fit' })).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Save house rules' }).click();
  await expect(status(page)).toContainText('house rules');
  await page.goto('/catalogue/1041');
  await page.getByRole('button', { name: 'Add a copy' }).first().click();
  await pick(page, 'Type', 'BK');
  await page.getByLabel('Barcode', { exact: true }).focus();
  await scanHere(page, 'WICK0001');
  await expect(page.getByText('The barcode is valid')).toBeVisible();
  await page.getByRole('button', { name: /^Add copy/ }).click();
  await expect(status(page)).toContainText('WICK0001');
  await page.keyboard.press('Escape');
  await page.goto('/today');
  await scan(page, 'WICK0001');
  await expect(page).toHaveURL(/\/catalogue\/1041/);
});

test('labels of a record are seen as they will be printed', async ({ page }) => {
  await signIn(page);
  await page.goto('/copies/labels?record=1040');
  await expect(page.getByRole('img', { name: 'The first page as it will be printed' })).toBeVisible();
  await choose(page, 'Label for', 'the barcode');
  await choose(page, 'Begin from', 'A4, 3 × 8 for barcodes');
  await expect(page.locator('.label-page rect:not(.label-place)').first()).toBeAttached();
  await accessible(page);
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as PDF' }).click();
  expect((await file).suggestedFilename()).toBe('labels.pdf');
});

test('links are tried, and the record of a bad one is corrected beside the list', async ({ page }) => {
  await signIn(page);
  await page.goto('/catalogue?show=links');
  await page.getByRole('button', { name: 'Try all links' }).click();
  await expect(status(page)).toContainText(/Tried \d+ addresses/, { timeout: 60_000 });
  await accessible(page);
  await page
    .getByRole('listbox', { name: 'Links', exact: true })
    .or(page.getByLabel('Links'))
    .first()
    .locator('[role=option]')
    .first()
    .click();
  await expect(page.getByRole('button', { name: 'Try the links' })).toBeVisible();
});

test('copies are found by what is known of them, changed together through a review, and all is undone', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/copies/all?numberFrom=746&numberTo=746.1');
  await expect(
    page.getByRole('listbox', { name: 'Copies', exact: true }).or(page.getByLabel('Copies')).first(),
  ).toBeVisible();
  await pick(page, 'Branch', 'Millrace');
  await expect(page).toHaveURL(/branch=MR/);
  await accessible(page);
  await page.getByRole('button', { name: 'Change all found' }).click();
  const form = page.getByRole('dialog', { name: 'Change copies' });
  await pick(page, 'Value', 'in repair');
  await form.getByRole('button', { name: /^Review the change of/ }).click();
  const sheet = page.getByRole('dialog').filter({ hasText: 'will be changed: status to in repair' });
  await expect(sheet).toBeVisible();
  await accessible(page);
  await sheet.getByRole('button', { name: /^Change \d+ cop/ }).click();
  await expect(status(page)).toContainText('Changed', { timeout: 30_000 });
  await expect(page.locator('.work-row').first()).toContainText('in repair');
  await picture(page, 'copies');
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await page.getByRole('dialog').getByRole('button', { name: /^Undo/ }).click();
  await expect(page.locator('.work-row').first()).toContainText('available');
});

test('a local field is made, filled in with a copy, found by, and deleted with what is in it', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/set-up?show=fields');
  await page.getByRole('button', { name: 'New local field' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Spine colour');
  await choose(page, 'Holds', 'a choice');
  // The form grows by the choices: what is below them has moved.
  const choices = page.getByRole('combobox', { name: 'Choices' });
  await expect(choices).toBeVisible();
  await expect(page.locator('.ant-select-dropdown:visible')).toHaveCount(0);
  await page.getByRole('button', { name: 'Add local field' }).click();
  await expect(page.getByText('Give at least two choices.')).toBeVisible();
  for (const colour of ['red', 'green']) {
    await choices.fill(colour);
    await choices.press('Enter');
  }
  await accessible(page);
  await page.getByRole('button', { name: 'Add local field' }).click();
  await expect(status(page)).toContainText('Made the local field “Spine colour”');

  await page.goto('/catalogue/1040');
  await page
    .getByRole('button', { name: /^More for \d{14}/ })
    .first()
    .click();
  await page.getByRole('menuitem', { name: 'Change copy' }).click();
  await choose(page, 'Spine colour', 'green');
  await page.getByRole('button', { name: 'Save copy' }).click();
  await expect(page.getByText('Spine colour: green')).toBeVisible();

  await page.goto('/copies/all?q=copyfield%20%3D%20green');
  await expect(page.getByText('1 copy.')).toBeVisible();
  await page.goto('/set-up?show=fields');
  await page
    .getByRole('row', { name: /Spine colour/ })
    .getByRole('button', { name: 'Change' })
    .click();
  await page.getByRole('button', { name: 'Delete local field' }).click();
  await expect(
    page.getByText('The values of 1 copy go with it. Undo brings all of them back.'),
  ).toBeVisible();
  await accessible(page);
  await page.getByRole('tooltip').getByRole('button', { name: 'Delete local field' }).click();
  await expect(status(page)).toContainText(
    'Deleted the local field “Spine colour”, with its values in 1 copy',
  );
  await page.goto('/copies/all?q=copyfield%20%3D%20green');
  await expect(page.getByText('0 copies.')).toBeVisible();
});
