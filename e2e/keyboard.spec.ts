import { expect, type Locator, type Page } from '@playwright/test';
import { barcodeFor } from '@osier/core/barcodes';
import { COPY_BARCODES } from '../demo/barcodes';
import { readFileSync } from 'node:fs';
import { demoFile, scan, status, tabTo, test } from './helpers';

const press = async (page: Page, target: Locator) => {
  await tabTo(page, target);
  await page.keyboard.press('Enter');
};

async function pickByKeyboard(page: Page, label: string, text: string): Promise<void> {
  await tabTo(page, page.getByRole('combobox', { name: label, exact: true }));
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

test('from a file to a reconciled shelf by keyboard and scanner alone', async ({ page }) => {
  test.setTimeout(180_000);
  await page.goto('/');
  await press(page, page.getByRole('button', { name: 'Nell Arkwright' }));
  await expect(page.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();

  // A delivery: taken in, looked through, cleaned, accepted.
  await page.keyboard.press('Alt+2');
  const chooser = page.waitForEvent('filechooser');
  await press(page, page.getByRole('button', { name: 'Choose a file' }));
  await (await chooser).setFiles(demoFile('lyngby-exchange.xml'));
  await expect(page.getByRole('button', { name: 'Load 15 records' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByText('15 records, 15 waiting.')).toBeVisible();
  await tabTo(page, page.getByRole('listbox', { name: 'Incoming records', exact: true }));
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText(/no\. 1 in the file/)).toBeVisible();
  await page.keyboard.press('End');
  await expect(page.getByText(/no\. 15 in the file/)).toBeVisible();
  await press(page, page.getByRole('button', { name: /^Clean with/ }));
  await expect(page.getByText(/“House style” changes/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText(/changed|nothing to change/);
  await press(page, page.getByRole('button', { name: /^Accept 15 records/ }));
  await expect(page.getByText(/15 records will be added/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Accepted 15 records');
  await expect(page.getByRole('dialog')).toHaveCount(0);

  // The record found, a holding and a scanned copy added.
  await page.keyboard.press('/');
  await page.keyboard.type('ny samling Lozinski');
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByRole('listbox', { name: 'Records', exact: true }));
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: /Pletenie/ })).toBeVisible();
  await press(page, page.getByRole('button', { name: 'Add a holding' }));
  await pickByKeyboard(page, 'Branch', 'Hallow');
  await pickByKeyboard(page, 'Location', 'Closed');
  await press(page, page.getByRole('button', { name: /^Add holding/ }));
  await expect(status(page)).toContainText('Added a holding');
  await pickByKeyboard(page, 'Type', 'Book');
  const barcode = barcodeFor(COPY_BARCODES, 88_000_777);
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await scan(page, barcode);
  await expect(page.getByText('The barcode is valid and not in use.')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(status(page)).toContainText('Added copy 1');
  await page.keyboard.press('Escape');

  // Two names become one.
  await page.keyboard.press('Alt+5');
  await tabTo(page, page.getByRole('listbox', { name: 'Look-alikes', exact: true }));
  await page.keyboard.press('ArrowDown');
  await press(page, page.getByRole('button', { name: /^Merge 2 headings/ }));
  await expect(page.getByText(/will carry/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Merged 2 headings');

  // A discard, scanned from outside any field.
  await page.keyboard.press('Alt+7');
  await press(page, page.getByRole('button', { name: 'Start a list' }));
  await pickByKeyboard(page, 'Branch', 'Hallow');
  await press(page, page.getByRole('button', { name: 'Start the list' }));
  await expect(page.getByText('Nothing scanned yet.', { exact: false })).toBeVisible();
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await scan(page, barcode);
  await expect(page.getByRole('region', { name: 'Caution: check first' })).toContainText(
    'The last copy anywhere',
  );
  await tabTo(page, page.getByRole('checkbox', { name: /^Withdraw/ }));
  await page.keyboard.press('Space');
  await press(page, page.getByRole('button', { name: 'Withdraw 1 copy…' }));
  await expect(page.getByText(/1 record will leave the catalogue/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Withdrew 1 copy');

  // A shelf scanned by hand.
  await page.keyboard.press('Alt+8');
  await press(page, page.getByRole('button', { name: 'Start a stocktake' }));
  await tabTo(page, page.getByRole('textbox', { name: 'Name' }));
  await page.keyboard.type('By hand');
  await pickByKeyboard(page, 'Branch', 'Millrace');
  await press(page, page.getByRole('button', { name: 'Start the stocktake' }));
  await expect(page.getByText('Nothing scanned yet', { exact: false })).toBeVisible();
  for (const code of readFileSync(demoFile('stocktake-millrace-746.txt'), 'utf8')
    .split(/\r?\n/)
    .slice(0, 3)) {
    await page.keyboard.type(code);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('3 scans', { exact: true })).toBeVisible();

  // And the last act taken back.
  await page.keyboard.press('Alt+9');
  await tabTo(page, page.getByRole('listbox', { name: 'Entries', exact: true }));
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: /Withdrew 1 copy/ })).toBeVisible();
  await press(page, page.getByRole('button', { name: 'Undo', exact: true }));
  await expect(page.getByText(/^Undoes: Withdrew 1 copy/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Undid: Withdrew 1 copy');
});

test('keys that come faster than pieces open are all obeyed', async ({ page }) => {
  await page.goto('/');
  await press(page, page.getByRole('button', { name: 'Nell Arkwright' }));
  await expect(page.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
  await page.keyboard.press('Alt+4');
  const list = page.getByRole('listbox', { name: 'Records', exact: true });
  await list.evaluate((e) => {
    for (let i = 0; i < 4; i++)
      e.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true, cancelable: true }));
  });
  await expect(list.locator('[role=option][aria-current=true]')).toHaveAttribute('aria-posinset', '4');
});
