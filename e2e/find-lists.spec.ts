import { expect } from '@playwright/test';
import { accessible, signIn, test } from './helpers';

test('a list is begun anywhere and read both ways by keyboard, and an entry shows what is under it', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/catalogue');
  await page.getByRole('button', { name: 'Browse' }).click();
  const start = page.getByRole('textbox', { name: 'Start at' });
  await expect(start).toBeFocused();
  await page.getByRole('combobox', { name: 'List' }).press('Enter');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Names, with see-froms')).toBeVisible();
  await start.fill('harbottle');
  await start.press('Enter');
  const list = page.getByRole('listbox', { name: 'Names' });
  await expect(list.getByText(/^Harbottle, /).first()).toBeVisible();
  await list.focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { level: 2, name: /^Harbottle, / })).toBeVisible();
  await expect(page.getByRole('heading', { level: 3, name: /^\d+ records?$/ })).toBeVisible();
  await accessible(page);
  // On a phone the list gives way to what is opened, and comes back.
  await page.setViewportSize({ width: 400, height: 800 });
  await page.getByRole('button', { name: 'Back to the list' }).click();
  await expect(list.getByText(/^Harbottle, /).first()).toBeVisible();
  await page.setViewportSize({ width: 1280, height: 800 });
  await list.focus();
  await page.keyboard.press('b');
  await expect(page.getByRole('heading', { level: 2, name: /^Harbottle, / })).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Show as a list' })).toBeEnabled();
  await page.keyboard.press('l');
  await expect(page.getByText(/^\d+ records? for “heading \d+”/)).toBeVisible();
});

test('what was meant, narrowing by choices, and a search that is saved and counted in Today', async ({
  page,
}) => {
  await signIn(page);
  await page.keyboard.press('/');
  await page.keyboard.type('wilow');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'willow' }).click();
  await expect(page.getByText(/records for “willow”/)).toBeVisible();
  await page.getByRole('button', { name: 'Narrow by' }).click();
  await page.getByRole('button', { name: /^Reedling Library Supply/ }).click();
  const line = page.getByRole('textbox', { name: 'Searched for' });
  await expect(line).toHaveValue(/^words all "willow\*" and supplier = "\w+"$/);
  await page.getByRole('button', { name: 'Save search' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Willow of Reedling');
  await page.getByRole('checkbox', { name: 'Show its number in Today' }).check();
  await page.keyboard.press('Enter');
  await expect(page.getByText('Saved the search “Willow of Reedling”')).toBeVisible();
  await page.goto('/today');
  const saved = page.getByRole('region', { name: 'Saved searches' });
  await expect(saved.getByText(/^\d+ records?$/)).toBeVisible();
  await accessible(page);
  await saved.getByRole('link', { name: 'Willow of Reedling' }).click();
  await expect(line).toHaveValue(/^words all "willow\*" and supplier = "\w+"$/);
});
