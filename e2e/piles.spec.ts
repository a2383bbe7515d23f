import { expect } from '@playwright/test';
import { accessible, pick, scan, signIn, status, test } from './helpers';

test('what is found is put on a pile, more is scanned onto it, a recipe is run over it, all is taken back', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/catalogue?q=wattle');
  const found = page.getByText(/^\d+ records for “wattle”\.$/);
  const count = Number(/^\d+/.exec((await found.textContent())!)![0]);
  await page.getByRole('button', { name: 'Add to pile…' }).click();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('Give the pile a name, or choose one that is there.');
  await accessible(page);
  await page.keyboard.type('Wattles, for the spring display');
  await page.keyboard.press('Enter');
  await expect(status(page)).toContainText(
    `Added ${count} records to the pile “Wattles, for the spring display”`,
  );
  await expect(page.getByRole('dialog')).toHaveCount(0);

  // Scanned onto from anywhere in the area, each thing once.
  await page.keyboard.press('Alt+6');
  await page.getByRole('option', { name: /Wattles/ }).click();
  await expect(page.getByText(`${count} records · started by Nell Arkwright`)).toBeVisible();
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await scan(page, '31204000000000');
  await expect(page.getByText('Not added to the pile: 1')).toBeVisible();
  const field = page.getByRole('textbox', { name: /record numbers/ });
  await field.fill('r1 r1');
  await field.press('Enter');
  await expect(page.getByText('1 record added, 1 already there')).toBeVisible();
  await expect(page.getByText(`${count + 1} records · started by`)).toBeVisible();
  await accessible(page);

  // Looked at in the Catalogue, where searches stay within it.
  await page.getByRole('link', { name: 'See it in the Catalogue' }).click();
  await expect(
    page.getByText(`${count + 1} records, of the pile “Wattles, for the spring display”.`),
  ).toBeVisible();
  await page.goBack();

  // Cleaned by the same sheet as a delivery.
  await pick(page, 'Run a recipe over this pile', 'House style');
  await expect(
    page.getByText(new RegExp(`^“House style” changes \\d+ of ${count + 1} records\\.$`)),
  ).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('“House style” changed');
  await page.keyboard.press('Alt+z');
  await expect(page.getByText(/^Undoes: Ran “House style” over the pile “Wattles/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(status(page)).toContainText('Undid: Ran “House style” over the pile');

  // One thing is taken off, the pile is taken away, and both come back.
  await page.getByRole('checkbox').first().check();
  await page.getByRole('button', { name: 'Remove 1 record from pile' }).click();
  await expect(page.getByText(`${count} records · started by`)).toBeVisible();
  await page.getByRole('button', { name: 'Delete pile' }).click();
  await expect(status(page)).toContainText('Deleted the pile “Wattles, for the spring display”');
  await expect(page.getByText('No pile is kept.')).toBeVisible();
  await page.keyboard.press('Alt+z');
  await expect(page.getByText(/^Undoes: Deleted the pile “Wattles/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('1 pile kept.')).toBeVisible();
});

test('an empty pile is begun and scanned onto by keyboard and scanner, at the width of a phone', async ({
  page,
}) => {
  await page.setViewportSize({ width: 400, height: 800 });
  await signIn(page);
  await page.goto('/copies');
  await page.getByRole('button', { name: 'New pile' }).press('Enter');
  await expect(page.getByRole('textbox', { name: 'Name', exact: true })).toBeFocused();
  await page.keyboard.type('Trolley by the door');
  await page.keyboard.press('Enter');
  await expect(status(page)).toContainText('Started the pile “Trolley by the door”');
  await expect(page.getByRole('textbox', { name: 'Scan or paste barcodes' })).toBeFocused();
  await page.keyboard.type('31204000000000');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Not added to the pile: 1')).toBeVisible();
  const width = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(width).toBeLessThanOrEqual(400);
});
