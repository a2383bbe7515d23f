import { expect } from '@playwright/test';
import { accessible, fromPersonMenu, signIn, status, test } from './helpers';

test('what is not saved outlasts a reload and a sign-out elsewhere, and is listed until it is saved', async ({
  page,
  context,
}) => {
  await signIn(page);
  await page.goto('/catalogue/9');
  const note = page.locator('.field-row', { hasText: /^300/ });
  await note.focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('End');
  await page.keyboard.type(' (kept)');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Not saved yet.')).toBeVisible();
  await page.reload();
  await expect(page.locator('.field-row', { hasText: '(kept)' })).toBeVisible();

  await page.getByRole('link', { name: 'Today', exact: true }).click();
  const unsaved = page.getByRole('region', { name: 'Not saved yet' });
  await expect(unsaved.getByRole('link')).toHaveCount(1);
  await accessible(page);

  // Signed out in another page of the same browser.
  const other = await context.newPage();
  await other.goto('/set-up?show=house');
  const again = page.getByRole('dialog', { name: 'Signed out' });
  await fromPersonMenu(other, /head|cataloguer|assistant/, 'Sign out', () => again.isVisible());
  await expect(again).toContainText('What you typed is still here.');
  await again.getByRole('button', { name: 'Sign in as Nell Arkwright' }).click();
  await expect(again).toBeHidden();
  await other.close();

  await unsaved.getByRole('link').click();
  await expect(page.getByText('Not saved yet.')).toBeVisible();
  await page.keyboard.press('Control+s');
  await expect(status(page)).toContainText('Edited');
  await expect(page.getByText('Not saved yet.')).toHaveCount(0);
});

test('a form keeps what was typed, and several records are chosen for one act', async ({ page }) => {
  await signIn(page);
  await page.goto('/set-up?show=house');
  await page.getByRole('spinbutton', { name: 'Length of a skipped shelf' }).fill('9');
  await page.getByRole('link', { name: 'Catalogue', exact: true }).click();
  const list = page.getByRole('listbox', { name: 'Records', exact: true });
  await list.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByText('2 selected')).toBeVisible();
  await accessible(page);
  await list.focus();
  await page.keyboard.press('Control+Enter');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText('Add 2 records to the new pile');
  await page.keyboard.press('Escape');
  await page.reload();
  await expect(page.getByText('2 selected')).toBeVisible();

  await page.goto('/set-up?show=house');
  await expect(page.getByRole('spinbutton', { name: 'Length of a skipped shelf' })).toHaveValue('9');
  await page.getByRole('button', { name: 'Discard changes' }).click();
  await expect(page.getByRole('spinbutton', { name: 'Length of a skipped shelf' })).toHaveValue('8');
});
