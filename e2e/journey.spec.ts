import { expect } from '@playwright/test';
import { barcodeFor } from '@osier/core/barcodes';
import { COPY_BARCODES } from '../demo/barcodes';
import { readFileSync } from 'node:fs';
import { accessible, demoFile, fromPersonMenu, pick, picture, scan, signIn, status, test } from './helpers';

const free = barcodeFor(COPY_BARCODES, 88_000_001);

test('1 and 2: a delivery is read, cleaned and accepted, and accepting is taken back', async ({ page }) => {
  await page.goto('/');
  await accessible(page);
  await signIn(page);
  await page.getByRole('link', { name: /Deliveries/ }).click();
  await accessible(page);

  await page.locator('input[type=file]').setInputFiles(demoFile('trolley-of-discards.txt'));
  await expect(page.getByRole('alert')).toContainText('looks like a list of scanned barcodes');
  await expect(page.getByRole('button', { name: 'Load file' })).toBeDisabled();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.locator('input[type=file]').setInputFiles(demoFile('reedling-broken.mrc'));
  const look = page.getByRole('region', { name: 'Findings in reedling-broken.mrc' });
  await expect(look.getByText('A byte order mark was left out.')).toBeVisible();
  await expect(look.getByText('Missing title statement')).toBeVisible();
  await accessible(page);
  await picture(page, 'look-at-a-file');
  await page.getByRole('button', { name: 'Load 27 records' }).click();
  await expect(page.getByText(/^27 records, 27 waiting, \d+ repaired in reading\.$/)).toBeVisible();
  for (const [facet, seen] of [
    [/^repaired in reading/, page.getByText('Repaired in reading (2)')],
    [/^errors/, page.getByRole('group', { name: 'Fields of the record' })],
  ] as const) {
    const chosen = page.getByRole('button', { name: facet });
    const count = Number(/\d+/.exec((await chosen.textContent())!)![0]);
    await chosen.click();
    await expect(page.getByRole('option')).toHaveCount(count);
    await page.getByRole('option').first().click();
    await expect(seen).toBeVisible();
  }
  await expect(page.getByRole('group', { name: 'Fields of the record' })).toBeVisible();
  await accessible(page);
  await picture(page, 'delivery');

  await page.getByRole('link', { name: /Deliveries/ }).click();
  await page.locator('input[type=file]').setInputFiles(demoFile('tallow-and-pike.mrc'));
  await page.getByRole('button', { name: 'Load 42 records' }).click();
  await expect(page.getByText('42 records, 42 waiting.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Fix all 23 safe ones' })).toBeVisible();
  await accessible(page);
  const kind = page.getByRole('row', { name: /Duplicate subject heading/ });
  await kind.getByRole('button', { name: 'Fix all 4 safe ones' }).click();
  await expect(page.getByText(/Duplicate subject heading” changes 4 of 42/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('changed 4 records');
  await expect(kind).toBeHidden();
  await page.getByRole('button', { name: 'ISBN-13 missing' }).click();
  await page.getByRole('option').first().click();
  await page.getByRole('button', { name: /^Add 020/ }).click();
  await expect(page.getByText('Not saved yet.')).toBeVisible();
  await page.keyboard.press('Control+s');
  await expect(status(page)).toContainText('Corrected the incoming record');
  await page.getByRole('button', { name: 'What cleaning changed' }).click();
  const byDoing = page.getByRole('region', { name: 'Save what was done as a recipe' });
  // A fix that was taken is the check's own: it does something for others too.
  const step = byDoing.getByRole('checkbox', { name: /^Apply the safe fixes of “ISBN-13 missing”/ });
  await expect(step).toBeChecked();
  await expect(byDoing).toContainText(/would change [1-9]\d* of the 41 other waiting records/);
  await byDoing.getByRole('textbox', { name: 'Name of the recipe' }).fill('Tallow and Pike');
  await accessible(page);
  await page.keyboard.press('Enter');
  await expect(status(page)).toContainText('Saved the recipe “Tallow and Pike”: 1 step');
  await expect(page.getByRole('combobox', { name: 'Recipe to clean with' })).toBeVisible();
  await page.getByRole('button', { name: 'Findings by kind' }).click();
  await page.getByRole('button', { name: /show all/ }).click();
  await page.getByRole('button', { name: /Clean with/ }).click();
  await expect(page.getByText(/“House style” changes \d+ of 42 waiting records/)).toBeVisible();
  await accessible(page);
  await picture(page, 'review-sheet');
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText(/“House style” changed \d+ records/);

  await page.getByRole('button', { name: /^already held/ }).click();
  await page.getByRole('combobox', { name: 'Decide for all that are listed' }).click();
  await page.getByTitle('skip', { exact: true }).click();
  await expect(status(page)).toContainText('Chose “skip” for 6 incoming records');
  await page.getByRole('option').first().click();
  await page.getByText(/^replace \d+$/).click();
  await expect(status(page)).toContainText('replace');
  await page.getByRole('button', { name: /^What record \d+ becomes/ }).click();
  await accessible(page);
  await page.getByRole('button', { name: /^Accept 37 records/ }).click();
  await expect(
    page.getByText(/^36 records will be added, 1 replaced, .* 5 skipped\. 0 copies/),
  ).toBeVisible();
  await expect(page.getByText(/only titles are added/)).toBeVisible();
  await page.getByRole('button', { name: /^Accept 37 records Ctrl/ }).click();
  await expect(status(page)).toContainText('Accepted 37 records');
  await expect(page.getByText('42 records, none waiting, 37 accepted, 5 skipped.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Report' })).toBeVisible();

  await page.keyboard.press('Alt+z');
  await expect(page.getByText(/^Undoes: Accepted 37 records/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Undid: Accepted 37 records');
  await expect(page.getByText('42 records, 42 waiting.')).toBeVisible();
});

test('1b: a shelf-ready delivery by its supplier’s sheet: problems first, copies made, reported, taken back', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('link', { name: /Deliveries/ }).click();
  await page.locator('input[type=file]').setInputFiles(demoFile('reedling-shelf-ready.mrc'));
  await page.getByRole('button', { name: 'Load 24 records' }).click();
  await expect(page.getByText('24 records, 24 waiting.')).toBeVisible();
  await expect(page.getByText('24 findings as the file came, 18 now.')).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Sheet: Reedling Library Supply' }).click();
  await expect(page.getByText(/because the file name fits/)).toBeVisible();
  await accessible(page);
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: /^has a problem/ }).click();
  await page.getByRole('option').nth(3).click();
  await expect(page.getByText('“TOWER” is not a location here. Nearest: OPEN')).toBeVisible();
  const copies = page.getByRole('region', { name: 'Copies' });
  await copies.getByRole('button', { name: 'Change' }).click();
  await expect(copies.getByRole('textbox', { name: /^Barcode/ })).toBeFocused();
  await accessible(page);
  await pick(page, 'Location', 'BENCH');
  await copies.getByRole('button', { name: 'Save copy' }).click();
  await expect(status(page)).toContainText('Changed the copies of the incoming record');
  await expect(page.getByRole('button', { name: /^has a problem\s*3$/ })).toBeVisible();

  await page.getByRole('button', { name: /^already held/ }).click();
  // The list of before is still there for a moment: the three are those that are held.
  await expect(page.getByRole('option', { name: /copies only/ })).toHaveCount(3);
  await expect(page.getByRole('option')).toHaveCount(3);
  await page.getByRole('option').first().click();
  await expect(page.getByText(/% alike/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Side by side' }).click();
  await accessible(page);
  await page.getByRole('button', { name: /^Accept 21 records/ }).click();
  await expect(page.getByText(/^18 records will be added, .* 3 get copies only, .* 23 copies/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Accepted 21 records');
  await page.getByRole('link', { name: 'Report' }).click();
  await expect(page.getByRole('cell', { name: 'copies only', exact: true })).toHaveCount(3);
  await accessible(page);
  await page.getByRole('link', { name: 'Back to the delivery' }).click();
  await page.getByRole('button', { name: 'Undo accepting 21 records' }).click();
  await expect(page.getByText('21 records go back to waiting in this delivery.')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Undid the accepting of 21 records');
  await expect(page.getByText('24 records, 24 waiting.')).toBeVisible();
});

test('3 and 5: a record is found by the scan line, corrected, and given a holding and a copy', async ({
  page,
}) => {
  await signIn(page, 'Tobias Fenn');
  await page.keyboard.press('/');
  await page.keyboard.type('vannerie plein air');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 record for “vannerie plein air”.')).toBeVisible();
  await page.getByRole('option').first().click();
  await expect(page.getByRole('heading', { name: 'La vannerie de plein air' })).toBeVisible();
  await accessible(page);

  await page.locator('.field-row', { hasText: /^300/ }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('End');
  await page.keyboard.type(' (corrected)');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Not saved yet.')).toBeVisible();
  await page.keyboard.press('Control+s');
  await expect(status(page)).toContainText('Edited “La vannerie de plein air”: 300');
  await expect(page.locator('.field-row', { hasText: '(corrected)' })).toBeVisible();

  await page.getByRole('button', { name: 'Add a holding' }).click();
  await pick(page, 'Branch', 'Millrace');
  await pick(page, 'Location', 'benches');
  await accessible(page);
  await page.getByRole('button', { name: /^Add holding 746\.41/ }).click();
  await expect(status(page)).toContainText('Added a holding');
  await pick(page, 'Type', 'Book');
  const barcode = page.getByRole('textbox', { name: 'Barcode' });
  await barcode.fill(free.slice(0, -1) + ((Number(free.at(-1)) + 1) % 10));
  await barcode.press('Enter');
  await expect(page.getByRole('alert')).toContainText('check digit is wrong');
  await barcode.fill(`a${free}b`);
  await barcode.press('Enter');
  await expect(page.getByText('The barcode is valid and not in use.')).toBeVisible();
  await picture(page, 'record');
  await page.keyboard.press('Enter');
  await expect(status(page)).toContainText('Added copy');
  await expect(barcode).toHaveValue('');
  await expect(barcode).toBeFocused();
  await barcode.fill(free);
  await barcode.press('Enter');
  await expect(page.getByRole('alert')).toContainText('is already on “La vannerie de plein air”');
  await page.keyboard.press('Escape');

  await page.getByRole('link', { name: 'Today', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
  await page.locator('h1').click();
  await scan(page, free);
  await expect(page.getByRole('heading', { name: 'La vannerie de plein air' })).toBeVisible();
  await expect(page.locator('.copy-line.wanted')).toContainText('88000001');
});

test('3: two people save one record, and the second sees both versions', async ({ browser }) => {
  const [one, two] = [
    await (await browser.newContext()).newPage(),
    await (await browser.newContext()).newPage(),
  ];
  await signIn(one, 'Tobias Fenn');
  await signIn(two, 'Nell Arkwright');
  for (const [page, text] of [
    [one, ' one'],
    [two, ' two'],
  ] as const) {
    await page.goto('/catalogue/33');
    await page.locator('.field-row', { hasText: /^245/ }).focus();
    await page.keyboard.press('Enter');
    await page.keyboard.press('End');
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  }
  await one.keyboard.press('Control+s');
  await expect(status(one)).toContainText('Edited');
  await two.keyboard.press('Control+s');
  await expect(two.getByText('Somebody saved this record while you worked on it.')).toBeVisible();
  // Both changed the same field: which stands is asked.
  await expect(two.getByRole('button', { name: '1 to choose' })).toBeDisabled();
  await accessible(two);
  await two.getByRole('radio', { name: /^Mine/ }).check();
  await two.getByRole('button', { name: 'Continue editing' }).click();
  await two.keyboard.press('Control+s');
  await expect(status(two)).toContainText('Edited');
});

test('4: look-alike names are merged, and the merge is taken back', async ({ page }) => {
  await signIn(page, 'Tobias Fenn');
  await page.keyboard.press('Alt+5');
  const list = page.getByRole('listbox', { name: 'Look-alikes', exact: true });
  await list.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: 'One person, or several?' })).toBeVisible();
  await accessible(page);
  await picture(page, 'headings');
  await page.getByRole('button', { name: /^Merge 2 headings into 1/ }).click();
  await expect(page.getByText(/will carry/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Merged 2 headings into');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByText(/^Undoes: Merged/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Undid: Merged');
  await page.getByRole('button', { name: 'All headings' }).click();
  await page.getByRole('textbox', { name: 'Find headings' }).fill('basket making');
  await page.getByRole('option').first().click();
  await expect(page.getByText(/records use it|1 record uses it/)).toBeVisible();
  await accessible(page);
});

test('6: a trolley is weighed, prepared by the cataloguer and withdrawn by the head', async ({
  page,
  browser,
}) => {
  const codes = readFileSync(demoFile('trolley-of-discards.txt'), 'utf8').trim().split('\n');
  await signIn(page, 'Tobias Fenn');
  await page.keyboard.press('Alt+7');
  await page.getByRole('button', { name: 'Start a list' }).click();
  await page.getByRole('button', { name: 'Start the list' }).click();
  await expect(page.getByText('Choose a branch.')).toBeVisible();
  await pick(page, 'Branch', 'Millrace');
  await page.getByRole('button', { name: 'Start the list' }).click();
  const field = page.getByRole('textbox', { name: 'Scan or paste barcodes' });
  const lastScan = page.getByRole('status', { name: 'Last scan' });
  for (const code of codes.slice(0, 3)) {
    await field.fill(code);
    await field.press('Enter');
    await expect(lastScan).toContainText(code.slice(-6, -1));
  }
  await page.locator('h2').first().click();
  await scan(page, codes[3]!);
  await expect(lastScan).toContainText(codes[3]!.slice(-6, -1));
  await page.getByRole('button', { name: 'Undo last scan' }).click();
  await expect(page.getByText(/^Scan of .* undone/)).toBeVisible();
  await expect(lastScan).toHaveCount(0);
  await scan(page, codes[3]!);
  await expect(lastScan).toContainText(codes[3]!.slice(-6, -1));
  await field.evaluate((input, text) => {
    const data = new DataTransfer();
    data.setData('text', text);
    input.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, codes.slice(4).join('\n'));
  await expect(page.getByRole('region', { name: 'Stop: cannot be withdrawn' })).toContainText('On loan');
  await expect(page.getByRole('region', { name: 'Caution: check first' })).toContainText('last copy');
  await accessible(page);
  await picture(page, 'withdrawals');
  await page.getByRole('button', { name: /^Withdraw \d+ copies/ }).click();
  await expect(page.getByText('The head of technical services confirms it.')).toBeVisible();

  const head = await (await browser.newContext()).newPage();
  await signIn(head);
  await head.goto(page.url());
  const last = head.locator('.list-row', { hasText: 'The last copy anywhere' }).first();
  await last.getByRole('checkbox').check();
  await head.getByRole('button', { name: /^Withdraw \d+ copies…/ }).click();
  await expect(head.getByText(/copies will be withdrawn/)).toBeVisible();
  await expect(head.getByText(/1 record will leave the catalogue/)).toBeVisible();
  await head.keyboard.press('Control+Enter');
  await expect(status(head)).toContainText(/Withdrew \d+ copies/);
  // What went is marked: a label for each book on the trolley.
  await head.getByRole('link', { name: 'Labels “withdrawn”' }).click();
  await expect(head.getByText('WITHDRAWN').first()).toBeVisible();
  await accessible(head);
  await head.getByRole('link', { name: 'Back' }).click();
  await head.getByRole('button', { name: 'Register' }).click();
  await expect(head.getByRole('row')).not.toHaveCount(1);
  await accessible(head);
  await head.getByRole('button', { name: 'Weeding' }).click();
  await pick(head, 'Branch', 'Millrace');
  await expect(head.getByText(/^[\d,]+ copies\. Set a limit to see candidates\.$/)).toBeVisible();
  await head.getByRole('button', { name: 'Load loan figures' }).click();
  const table = head.getByRole('dialog', { name: 'Load loan figures' });
  await table.locator('input[type=file]').setInputFiles(demoFile('trolley-of-discards.txt'));
  await expect(table.getByRole('alert')).toContainText('There is no column of barcodes');
  await table.locator('input[type=file]').setInputFiles(demoFile('loan-figures-millrace.csv'));
  await expect(head.getByText(/^\d+ copies will have new loan figures\.$/)).toBeVisible();
  await expect(head.getByText(/\d+ barcodes? of no copy here/)).toBeVisible();
  await accessible(head);
  await head.keyboard.press('Control+Enter');
  await expect(status(head)).toContainText(/Loaded loan figures of \d+ copies/);
  await head.getByRole('slider', { name: 'Published before' }).focus();
  for (let i = 0; i < 20; i++) await head.keyboard.press('ArrowLeft');
  await expect(head).toHaveURL(/published=\d{4}/);
  await expect(head.getByText(/^[\d,]+ candidates of [\d,]+ copies\.$/)).toBeVisible();
  await accessible(head);
  await head.getByRole('button', { name: 'Union catalogue' }).click();
  await expect(head.getByText('record deleted').first()).toBeVisible();
  await accessible(head);
  await head.getByRole('button', { name: 'Write the notice' }).click();
  await expect(status(head)).toContainText(/^Told the union catalogue of/);
  await expect(head.getByText('The union catalogue has been told everything.')).toBeVisible();
  const saving = head.waitForEvent('download');
  await head.getByRole('link', { name: 'ISO 2709' }).click();
  expect((await saving).suggestedFilename()).toMatch(/^union-notice-\d+\.mrc$/);
  await accessible(head);
});

test('7: a stretch is taken stock of, findings are settled, the stocktake is closed', async ({ page }) => {
  await signIn(page);
  await page.keyboard.press('Alt+8');
  await page.getByRole('button', { name: 'Start a stocktake' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Millrace, textiles');
  await pick(page, 'Branch', 'Millrace');
  await pick(page, 'Locations', 'Open');
  await page.keyboard.press('Escape');
  await page.getByRole('textbox', { name: 'Call number from' }).fill('746');
  await page.getByRole('textbox', { name: 'Call number to' }).fill('746');
  await accessible(page);
  await page.getByRole('button', { name: 'Start the stocktake' }).click();
  await expect(page.getByText('Nothing scanned yet')).toBeVisible();
  await page.locator('.load-row input[type=file]').setInputFiles(demoFile('stocktake-millrace-746.txt'));
  await expect(status(page)).toContainText('Loaded');
  for (const group of [
    'Status to correct',
    'Belongs elsewhere',
    'Misread',
    'Out of order',
    'Missing',
    'Skipped shelf',
  ])
    await expect(page.getByRole('region', { name: group })).toBeVisible();
  await expect(page.getByText(/copies in a row not scanned/)).toBeVisible();
  const strip = page.getByRole('slider', { name: 'Shelf strip' });
  await strip.focus();
  await page.keyboard.press('n');
  await expect(strip).not.toHaveAttribute('aria-valuenow', '1');
  await accessible(page);
  await picture(page, 'stocktake');

  await page.getByRole('region', { name: 'Status to correct' }).getByText('mark found').first().click();
  await page
    .getByRole('region', { name: 'Belongs elsewhere' })
    .getByText('set location to here')
    .first()
    .click();
  await page.getByRole('region', { name: 'Missing' }).getByText('mark missing').first().click();
  await page.getByRole('button', { name: 'Settle 3 findings…' }).click();
  await expect(page.getByText('3 findings will be settled')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Settled 3 findings');
  await expect(page.getByRole('region', { name: 'Missing' }).getByText(/^Marked missing /)).toBeVisible();

  await page.setViewportSize({ width: 400, height: 800 });
  await page.getByRole('link', { name: 'Walk the shelf' }).click();
  const field = page.getByRole('textbox', { name: /Millrace, Open shelves/ });
  await field.fill('31204099999999');
  await field.press('Enter');
  await expect(page.getByText('Unknown barcode')).toBeVisible();
  await expect(page.getByText('1 scan in this walk')).toBeVisible();
  await picture(page, 'walk');
  await page.getByRole('button', { name: 'Undo last scan' }).click();
  await expect(page.getByText('Scan undone')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(400);
  await accessible(page);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole('link', { name: 'Findings' }).click();
  await page.getByRole('button', { name: 'Close the stocktake' }).click();
  await expect(page.getByText(/findings are not settled/)).toBeVisible();
  await accessible(page);
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Closed Millrace, textiles.');
  await page.getByRole('link', { name: 'Report' }).click();
  await expect(page.getByText(/Nothing in this report changes any more/)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'To look for once more' })).toBeVisible();
  await accessible(page);
});

test('8: everything is in the daybook, with its changes', async ({ page }) => {
  await signIn(page);
  await accessible(page);
  await picture(page, 'today');
  await page.keyboard.press('Alt+9');
  const entries = page.getByRole('listbox', { name: 'Entries', exact: true });
  for (const act of [
    'Loaded the delivery',
    'Accepted 37 records',
    'Edited',
    'Added a holding',
    'Added copy',
    'Merged 2 headings',
    'Withdrew',
    'Loaded',
    'Settled 3 findings',
    'Closed the stocktake',
  ])
    await expect(entries).toContainText(act);
  await page.getByRole('option', { name: /Settled 3 findings/ }).click();
  await expect(page.getByText('status:', { exact: false }).first()).toBeVisible();
  await accessible(page);
  await picture(page, 'daybook');
});

test('9: a recipe is written, run over what a search of the catalogue finds, and taken back', async ({
  page,
}) => {
  await signIn(page);
  await page.keyboard.press('Alt+0');
  await page.getByRole('button', { name: 'Recipes' }).click();
  await page.getByRole('button', { name: 'New recipe' }).click();
  await accessible(page);
  await pick(page, 'Step', 'delete a subdivision');
  await page.keyboard.press('Tab');
  await page.getByRole('textbox', { name: 'Subdivision' }).press('Enter');
  await expect(page.getByRole('alert')).toContainText('Type the text.');
  await page.getByRole('textbox', { name: 'Subdivision' }).fill('Juvenile literature');
  await expect(page.getByText('delete the subdivision “Juvenile literature”')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(status(page)).toContainText('Saved the recipe “New recipe”: 1 step');
  const card = page.getByRole('region', { name: 'New recipe' });
  await card.getByRole('textbox', { name: 'Name of the recipe' }).fill('For grown-ups');
  await page.keyboard.press('Enter');
  await expect(status(page)).toContainText('Changed the recipe “For grown-ups”');

  await page.keyboard.press('/');
  await page.keyboard.type('650{$v~\\Juvenile}');
  await page.keyboard.press('Enter');
  const found = page.getByText(/^\d+ records for “650.*searched as a field address\.$/);
  const count = Number(/^\d+/.exec((await found.textContent())!)![0]);
  await pick(page, 'Run a recipe over the records found', 'For grown-ups');
  await expect(page.getByText(`“For grown-ups” changes ${count} of ${count} records.`)).toBeVisible();
  await accessible(page);
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText(`“For grown-ups” changed ${count} records`);
  await expect(page.getByText(/^Nothing found for “650/)).toBeVisible();
  await page.keyboard.press('Alt+z');
  await expect(page.getByText(/^Undoes: Ran “For grown-ups” over what “650/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Undid: Ran “For grown-ups”');
  await expect(found).toHaveText(new RegExp(`^${count} records`));
});

test('set-up: lists, rules and people, for the head to change and others to read', async ({ page }) => {
  await signIn(page, 'Ida Moorhouse');
  await page.keyboard.press('Alt+0');
  await expect(page.getByText('Only the head changes these.')).toBeVisible();
  await accessible(page);
  const nell = page.getByRole('button', { name: 'Nell Arkwright' });
  await fromPersonMenu(page, /head|cataloguer|assistant/, 'Sign out', () => nell.isVisible());
  await nell.click();
  await expect(page.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
  await page.keyboard.press('Alt+0');
  await page.getByRole('textbox', { name: 'Name of branch 1' }).fill('Sedge House, reading');
  await page.getByRole('button', { name: 'Save code lists' }).click();
  await expect(status(page)).toContainText('Changed the code lists');
  await picture(page, 'set-up');
  for (const name of ['House rules', 'Suppliers and labels', 'Recipes', 'People']) {
    await page.getByRole('button', { name }).click();
    await accessible(page);
    if (name !== 'People' && name !== 'House rules')
      await picture(page, name.toLowerCase().replaceAll(' ', '-'));
  }
  await page.keyboard.press('Alt+z');
  await expect(page.getByText(/^Undoes: Changed the code lists/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Undid: Changed the code lists');
  await page.keyboard.press('Alt+4');
  await expect(page.getByText(/^1,\d\d\d records\. Search/)).toBeVisible();
  await picture(page, 'catalogue');
  await page.locator('h1').click();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Scan line');
});
