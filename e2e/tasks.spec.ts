import { expect, type Locator, type Page } from '@playwright/test';
import { demoFile, pick, signIn, status, tabTo, test } from './helpers';

/** How a person works: with the mouse, or with the keyboard alone. */
interface Way {
  readonly area: (page: Page, name: string, key: string) => Promise<void>;
  readonly press: (page: Page, target: Locator, key?: string) => Promise<void>;
  readonly first: (page: Page, list: string) => Promise<void>;
  readonly confirm: (page: Page) => Promise<void>;
}

const BY_MOUSE: Way = {
  area: (page, name) => page.getByRole('navigation', { name: 'Areas' }).getByRole('link', { name }).click(),
  press: (_, target) => target.click(),
  first: (page, list) =>
    page.getByRole('listbox', { name: list, exact: true }).getByRole('option').first().click(),
  confirm: (page) =>
    page
      .getByRole('dialog')
      .getByRole('button', { name: /Ctrl Enter$/ })
      .click(),
};
const BY_KEYBOARD: Way = {
  area: (page, _, key) => page.keyboard.press(`Alt+${key}`),
  press: async (page, target, key) => {
    if (key) {
      await expect(target).toBeVisible();
      await page.evaluate(() => (document.activeElement as HTMLElement).blur());
      return page.keyboard.press(key);
    }
    await tabTo(page, target);
    await page.keyboard.press('Enter');
  },
  first: async (page, list) => {
    await tabTo(page, page.getByRole('listbox', { name: list, exact: true }));
    await page.keyboard.press('ArrowDown');
  },
  confirm: (page) => page.keyboard.press('Control+Enter'),
};

test.describe.configure({ mode: 'serial' });
for (const [name, by] of [
  ['mouse', BY_MOUSE],
  ['keyboard', BY_KEYBOARD],
] as const)
  test(`what everybody does on the first day, by ${name}, and the last act undone each time`, async ({
    page,
  }) => {
    test.setTimeout(240_000);
    await signIn(page);
    const undo = async (what: RegExp) => {
      if (by === BY_KEYBOARD) {
        await page.evaluate(() => (document.activeElement as HTMLElement).blur());
        await page.keyboard.press('Alt+z');
      } else await status(page).getByRole('button', { name: /^Undo/ }).click();
      await expect(page.getByText(/^Undoes: /)).toBeVisible();
      await by.confirm(page);
      await expect(status(page)).toContainText(what);
      await expect(page.getByRole('dialog')).toHaveCount(0);
    };

    // A record by a word of its title; its date is wrong.
    if (by === BY_KEYBOARD) await page.keyboard.press('/');
    else await page.getByRole('combobox', { name: 'Scan or search' }).click();
    await page.keyboard.type('coracles');
    await page.keyboard.press('Enter');
    await by.first(page, 'Records');
    const date = page.locator('.field-row', { hasText: /^264/ }).first();
    await expect(date).toBeVisible();
    if (by === BY_KEYBOARD) {
      await tabTo(page, page.locator('.field-row').first());
      for (let i = 0; i < 20 && !(await date.evaluate((e) => e === document.activeElement)); i++)
        await page.keyboard.press('ArrowDown');
      await page.keyboard.press('Enter');
    } else await date.dblclick();
    const year = page.getByRole('textbox', { name: /^Subfield c: Date/ }).first();
    if (by === BY_KEYBOARD) await tabTo(page, year);
    else await year.click();
    await page.keyboard.press('End');
    await page.keyboard.press('Backspace');
    await page.keyboard.press('Backspace');
    await page.keyboard.type('9.');
    await page.keyboard.press('Enter');
    await expect(page.getByText('Not saved yet.')).toBeVisible();
    await by.press(page, page.getByRole('button', { name: /^Save record/ }), 'Control+s');
    await expect(status(page)).toContainText(/^Edited “.*”: 264/);
    await undo(/^Undid: Edited/);

    // A file; what has nothing wrong with it is accepted.
    await by.area(page, 'Deliveries', '2');
    const chooser = page.waitForEvent('filechooser');
    await by.press(page, page.getByRole('button', { name: 'Choose a file' }));
    await (await chooser).setFiles(demoFile('tallow-and-pike.mrc'));
    await by.press(page, page.getByRole('button', { name: 'Load 42 records' }));
    await expect(page.getByText('42 records, 42 waiting.')).toBeVisible();
    await by.press(page, page.getByRole('button', { name: /^nothing to check \d+/ }));
    await by.press(page, page.getByRole('button', { name: /^Accept the \d+ listed/ }));
    await expect(page.getByText(/^\d+ records will be added, 0 replaced/)).toBeVisible();
    await by.confirm(page);
    await expect(status(page)).toContainText(/^Accepted \d+ records/);
    await undo(/^Undid: Accepted/);

    // The first two names that look alike.
    await by.area(page, 'Headings', '5');
    await by.first(page, 'Look-alikes');
    await by.press(page, page.getByRole('button', { name: /^Merge 2 headings/ }));
    await expect(page.getByText(/will carry/)).toBeVisible();
    await by.confirm(page);
    await expect(status(page)).toContainText('Merged 2 headings');
    await undo(/^Undid: Merged/);

    // One shelf is taken stock of.
    await by.area(page, 'Stocktake', '8');
    await by.press(page, page.getByRole('button', { name: 'Start a stocktake' }));
    if (by === BY_KEYBOARD) await tabTo(page, page.getByRole('textbox', { name: 'Name' }));
    else await page.getByRole('textbox', { name: 'Name' }).click();
    await page.keyboard.type(`A shelf, by ${name}`);
    if (by === BY_KEYBOARD) {
      await tabTo(page, page.getByRole('combobox', { name: 'Branch', exact: true }));
      await page.keyboard.type('Sedge');
      await page.keyboard.press('Enter');
      await tabTo(page, page.getByRole('textbox', { name: 'Call number from' }));
    } else {
      await pick(page, 'Branch', 'Sedge');
      await page.getByRole('textbox', { name: 'Call number from' }).click();
    }
    await page.keyboard.type('677');
    const to = page.getByRole('textbox', { name: 'Call number to' });
    if (by === BY_KEYBOARD) await tabTo(page, to);
    else await to.click();
    await page.keyboard.type('677');
    // What it will look for is worked out once more.
    await expect(page.getByText(/^68 copies expected of 68/)).toBeVisible();
    await by.press(page, page.getByRole('button', { name: 'Start the stocktake' }));
    await expect(page.getByText('Nothing scanned yet', { exact: false })).toBeVisible();
    await undo(/^Undid: Started the stocktake/);
  });
