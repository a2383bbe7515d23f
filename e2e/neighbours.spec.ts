import { expect } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { accessible, demoFile, picture, signIn, status, test } from './helpers';

const books = readFileSync(demoFile('books-to-catalogue.txt'), 'utf8').trim().split(/\r?\n/);

test('a book is looked for, held against the record, copied with its barcode, and undone', async ({
  page,
}) => {
  await signIn(page, 'Tobias Fenn');
  await page.keyboard.press('Alt+3');
  const box = page.getByRole('textbox', { name: 'ISBN, or title / surname' });
  await expect(box).toBeFocused();
  await accessible(page);

  // A digit is wrong: what was typed stays.
  const isbn = books[2]!;
  await box.fill(isbn.slice(0, 12) + String((Number(isbn[12]) + 1) % 10));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('The check digit of ISBN');
  await expect(box).toHaveValue(isbn.slice(0, 12) + String((Number(isbn[12]) + 1) % 10));

  // In turn: the first that has it ends the search; one key looks further.
  await box.fill(isbn);
  await page.keyboard.press('Enter');
  await expect(page.getByText('National Library of the Fens: 1 found')).toBeVisible();
  const copy = page.getByRole('button', { name: /^Copy this record/ });
  await expect(copy).toBeFocused();
  await expect(page.getByText('Osmere Valley Libraries: not asked yet')).toBeVisible();
  await page.keyboard.press('f');
  await expect(page.getByText('Osmere Valley Libraries: 1 found')).toBeVisible();
  await expect(page.getByText('not asked yet')).toHaveCount(0);
  await expect(page.getByText('asking…')).toHaveCount(0);
  await accessible(page);
  await picture(page, 'neighbours');

  // Not this one: the next; and back to the best.
  await page.keyboard.press('n');
  await expect(page.getByText('From Osmere Valley Libraries')).toBeVisible();
  await page.getByRole('button', { name: /National Library of the Fens · not this one/ }).click();
  await expect(page.getByText('From National Library of the Fens · Best of those found')).toBeVisible();
  await copy.focus();
  await page.keyboard.press('Enter');

  // Another ISBN does not slip in between; a wrong barcode is told in its cell; the right one saves.
  const barcode = page.getByRole('textbox', { name: 'Barcode 1' });
  await expect(barcode).toBeFocused();
  await accessible(page);
  await page.keyboard.type('31204000990025');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/The check digit is wrong/)).toBeVisible();
  const right = /it should be (\d)/.exec(
    (await page.getByText(/The check digit is wrong/).textContent())!,
  )![1]!;
  await page.keyboard.type(`3120400099002${right}`);
  await page.keyboard.press('Enter');
  await expect(status(page)).toContainText(/^Copied “.*” from National Library of the Fens with 1 copy/);
  await expect(box).toBeFocused();
  await expect(box).toHaveValue('');

  // It is here now; then it is undone.
  await page.keyboard.type(isbn, { delay: 5 });
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Already in the catalogue' })).toBeVisible();
  await expect(page.getByRole('button', { name: /Attach a copy instead/ })).toBeVisible();
  await accessible(page);
  await page.keyboard.press('Alt+z');
  await expect(page.getByText(/^Undoes: Copied “/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Undid: Copied');
  await expect(page.getByText('National Library of the Fens: 1 found')).toBeVisible();
});

test('nobody has it: a brief record is the way on; a source that fails is told and holds up nobody', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/neighbours?text=1979900019');
  await expect(page.getByText('National Library of the Fens: nothing')).toBeVisible();
  await expect(page.getByText('None of them has it.')).toBeVisible();
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press('b');
  await expect(page.getByRole('textbox', { name: 'ISBN' })).toHaveValue('1979900019');
});

test('the head adds a neighbour and tries it; an address that leads inside is refused', async ({ page }) => {
  await signIn(page);
  await page.goto('/set-up?show=neighbours&open=new');
  await page.getByRole('textbox', { name: 'Name', exact: true }).first().fill('Reedbed Library');
  await page.getByRole('textbox', { name: 'Address' }).fill('http://127.0.0.1:4611/');
  await page.getByRole('button', { name: /Try it/ }).click();
  await expect(page.getByText(/leads into this server’s own network/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Address' }).fill('http://neighbours.wickmere.example/school');
  await page.getByRole('button', { name: /Try it/ }).click();
  await expect(page.getByText(/It calls itself “Hurst Lane School”/)).toBeVisible();
  await page.getByRole('button', { name: 'Use its indexes' }).click();
  await accessible(page);
  await page.getByRole('button', { name: 'Add neighbour' }).click();
  await expect(status(page)).toContainText('Made the neighbour “Reedbed Library”');
  await page.keyboard.press('Alt+z');
  await expect(page.getByText(/^Undoes: Made the neighbour/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Undid: Made the neighbour');
});

test('many books are looked for at once, what was found becomes a delivery', async ({ page }) => {
  await signIn(page);
  await page.goto('/neighbours?show=many');
  await expect(page.getByRole('button', { name: /^Start a list/ })).toBeVisible();
  await page.keyboard.press('n');
  await page.getByRole('textbox', { name: 'Name' }).fill('Box by the window');
  await page.locator('input[type=file]').setInputFiles(demoFile('books-to-catalogue.txt'));
  await expect(page.getByText(`${books.length} scanned`)).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: `Look for ${books.length} books` }).click();
  await expect(page.getByText(/^Looking: \d+ of \d+ done\.$/)).toBeVisible();
  const deliver = page.getByRole('button', { name: /^Make a delivery of \d+ records/ });
  await expect(deliver).toBeVisible();
  await expect(page.getByRole('region', { name: 'already here' })).toContainText('has this ISBN');
  await expect(page.getByRole('region', { name: 'no ISBN' })).toContainText('The check digit of ISBN');
  await accessible(page);
  await deliver.click();
  await expect(status(page)).toContainText('The records are in a delivery.');
  await page.getByRole('link', { name: 'Delivery' }).last().click();
  await expect(page.getByRole('heading', { name: /Box by the window/ }).first()).toBeVisible();
});

test('brief records get their full ones: sure ones by themselves, the others by a person', async ({
  page,
}) => {
  await signIn(page, 'Tobias Fenn');
  await page.goto('/neighbours?show=brief');
  await expect(page.getByRole('button', { name: /^Ask for their full records now/ })).toBeVisible();
  await accessible(page);
  await page.keyboard.press('a');
  await expect(status(page)).toContainText(
    /^Asked for \d+ brief records: [1-9]\d* replaced by their full ones, [1-9]\d* to be looked at/,
  );
  await page.getByRole('button', { name: /^to be looked at/ }).click();
  await page.getByRole('option', { name: /Walking the sea wall/ }).click();
  await expect(page.getByText(/One is a video, the other a book/).last()).toBeVisible();
  await expect(page.getByRole('region', { name: 'What it becomes' })).toBeVisible();
  await accessible(page);
  await page.keyboard.press('n');
  await expect(status(page)).toContainText('It is not offered again for “Walking the sea wall”');
  // The next one is open: it is taken, and back again.
  await expect(page.getByRole('heading', { name: /^Notes on artists’ charcoal/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Take the full record/ })).toBeVisible();
  await page.keyboard.press('t');
  await expect(status(page)).toContainText(/^Replaced the brief record “.*” by the full one of/);
  await page.keyboard.press('Alt+z');
  await expect(page.getByText(/^Undoes: Replaced the brief record/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Undid: Replaced the brief record');
});
