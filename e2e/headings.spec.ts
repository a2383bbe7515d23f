import { expect } from '@playwright/test';
import { accessible, demoFile, signIn, status, test } from './helpers';

test('groups of look-alikes are decided by keyboard alone: merged, different, later, next', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/headings?verdict=same');
  const list = page.getByRole('listbox', { name: 'Look-alikes', exact: true });
  await expect(list.getByRole('option').first()).toBeVisible();
  await accessible(page);
  const state = page.getByText(/groups of headings that may be one/);
  const count = async () => Number(/^\d+/.exec((await state.textContent()) ?? '')?.[0]);
  const before = await count();
  await list.focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('button', { name: /^Merge 2 headings into 1/ })).toBeVisible();
  await accessible(page);
  await page.keyboard.press('m');
  await expect(page.getByRole('dialog').getByRole('button', { name: 'Merge 2 headings' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect.poll(count).toBe(before - 1);
  const shown = page.locator('.name-card.kept .name-form');
  const kept = await shown.textContent();
  await page.keyboard.press('n');
  await expect(shown).not.toHaveText(kept!);
  const different = await shown.textContent();
  await page.keyboard.press('x');
  await expect.poll(count).toBe(before - 2);
  await expect(shown).not.toHaveText(different!);
  await page.keyboard.press('l');
  await expect.poll(count).toBe(before - 3);
  await page
    .getByRole('button', { name: /^Later/ })
    .first()
    .click();
  await expect(list.getByRole('option')).toHaveCount(1);
  await list.getByRole('option').click();
  await page.getByRole('button', { name: 'Take up again' }).click();
  await expect.poll(count).toBe(before - 2);
});

test('any headings are merged by hand, all that are the same at once, and a heading is split', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/headings?show=all&q=willow');
  const list = page.getByRole('listbox', { name: 'Headings', exact: true });
  const rows = list.getByRole('option');
  await expect(rows.nth(1)).toBeVisible();
  await list.focus();
  await page.keyboard.press('ArrowDown');
  await accessible(page);
  await page.goto('/headings?show=all&kind=personal');
  await expect(rows.nth(3)).toBeVisible();
  await list.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Merge these…' }).click();
  await expect(page.locator('.name-card')).toHaveCount(2);
  await page.getByText('Another form').click();
  await page.getByLabel('New form').fill('$aOsierwright, Dinah,$d1911-1999');
  await page.getByRole('button', { name: /^Merge 2 headings into 1/ }).click();
  const sheet = page.getByRole('dialog');
  await expect(sheet.getByText(/will carry “Osierwright, Dinah, 1911-1999”/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Merge 2 headings' }).click();
  await expect(sheet).toBeHidden();
  await page.goto('/headings?show=all&q=osierwright');
  await rows.first().click();
  await expect(page.getByRole('heading', { name: 'Authority record' })).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Split…' }).click();
  await page.getByLabel('Form of the other heading').fill('$aOsierwright, Dora');
  await page.getByRole('group', { name: 'Records of the heading' }).getByRole('checkbox').first().check();
  await page.getByRole('button', { name: /^Review: 1 record goes/ }).click();
  await sheet.getByRole('button', { name: 'Split 1 record' }).click();
  await expect(sheet).toBeHidden();
  await expect(rows.filter({ hasText: 'Osierwright, Dora' })).toBeVisible();

  await page.goto('/headings?verdict=same');
  await page.getByRole('button', { name: /^Merge all \d+ that are the same/ }).click();
  await sheet.getByRole('button', { name: /^Merge \d+ groups?/ }).click();
  await expect(sheet).toBeHidden();
  await expect(page.getByText(/Merged \d+ groups? of headings/).first()).toBeVisible();
});

test('a file of authority records dropped in Deliveries goes to the headings, and is read and edited there', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/deliveries');
  await page.locator('input[type=file]').setInputFiles(demoFile('wickmere-names.mrc'));
  await page.getByRole('button', { name: /^Load 126 records/ }).click();
  const sheet = page.getByRole('dialog');
  await expect(sheet.getByText(/authority records of 126 will be loaded/)).toBeVisible();
  await accessible(page);
  await sheet.getByRole('button', { name: /^Load \d+ authority records/ }).click();
  await expect(page.getByText(/Loaded \d+ authority records from/).first()).toBeVisible();
  await page.goto('/headings?show=all&only=blind');
  const rows = page.getByRole('listbox', { name: 'Headings', exact: true }).getByRole('option');
  await rows.first().click();
  await expect(page.getByText('wr000', { exact: false }).first()).toBeVisible();
  await page.getByRole('combobox', { name: 'Tag of a new field' }).fill('667');
  await page.getByRole('button', { name: 'Add field' }).click();
  await page.locator('.sub-text').first().fill('Known to the institute');
  await page.keyboard.press('Control+s');
  await expect(page.getByText(/Edited the authority record/).first()).toBeVisible();
});

test('a heading is made from nothing by keyboard, asked about where it looks like another, and undone', async ({
  page,
}) => {
  await signIn(page, 'Tobias Fenn');
  await page.goto('/headings?show=all');
  await expect(
    page.getByRole('listbox', { name: 'Headings', exact: true }).getByRole('option').first(),
  ).toBeVisible();
  await page.locator('h1').click();
  await page.keyboard.press('w');
  const form = page.getByRole('textbox', { name: 'Form' });
  await form.fill('Hurdlewright, Ebba, 1901-1977');
  await form.press('Enter');
  await expect(page.getByText('Say where the form was found.')).toBeVisible();
  await accessible(page);
  const source = page.getByRole('textbox', { name: 'Source' });
  await source.fill('Gate hurdles, 1951, title page');
  await source.press('Enter');
  await expect(status(page)).toContainText('Added the heading “Hurdlewright, Ebba, 1901-1977”');
  await expect(page.getByRole('heading', { name: 'Hurdlewright, Ebba, 1901-1977' })).toBeVisible();
  await accessible(page);

  await page.goto('/headings?show=all&add=1');
  await form.fill('Hurdlewrigt, Ebba, 1901-1977');
  await source.fill('Gate hurdles, 1951');
  await source.press('Enter');
  await expect(
    page.getByText(/looks like the established “Hurdlewright, Ebba, 1901-1977”/).first(),
  ).toBeVisible();
  await expect(page.getByRole('checkbox', { name: /^It is another one/ })).toBeVisible();
  await page.getByRole('button', { name: 'Discard changes' }).click();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.locator('h1').click();
  await page.keyboard.press('Alt+z');
  await expect(page.getByText(/^Undoes: Added the heading/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Undid: Added the heading');
});

test('a heading takes the form of the registry with its records, and that is undone', async ({ page }) => {
  await signIn(page, 'Tobias Fenn');
  await page.goto('/headings?show=all&q=abberley');
  const list = page.getByRole('listbox', { name: 'Headings', exact: true });
  await list.getByRole('option', { name: /Abberley, Fergus/ }).click();
  await expect(page.getByRole('heading', { name: 'Abberley, Fergus' })).toBeVisible();
  const registry = page.getByRole('region', { name: 'Fenland Registry of Names' });
  await expect(registry.getByText(/\(FRN\)frn/).first()).toBeVisible();
  await accessible(page);
  await registry.getByRole('button', { name: 'Take it for this heading' }).first().click();
  const sheet = page.getByRole('dialog', { name: /^Take from Fenland Registry/ });
  await expect(sheet.getByText('1 authority record of 1 will be loaded.')).toBeVisible();
  await accessible(page);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: /^Abberley, Fergus, \d{4}-\d{4}$/ })).toBeVisible();
  await expect(registry.getByText('this heading has its number')).toBeVisible();
  await page.keyboard.press('Alt+z');
  await expect(page.getByText(/^Undoes: Loaded 1 authority record/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Abberley, Fergus', exact: true })).toBeVisible();
});
