import { expect } from '@playwright/test';
import { accessible, signIn, test } from './helpers';

test('a query is asked in the scan line, changed where it stands, and told where it cannot be answered', async ({
  page,
}) => {
  await signIn(page);
  await page.keyboard.press('/');
  await page.keyboard.type('title any "willow basket*" and year >= 1980');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/searched as a query/)).toBeVisible();
  const line = page.getByRole('textbox', { name: 'Searched for' });
  await expect(line).toHaveValue('title any "willow basket*" and year >= 1980');
  await accessible(page);
  await line.fill('title = "willow');
  await page.keyboard.press('Enter');
  await expect(page.getByText('The search cannot be answered.')).toBeVisible();
  await expect(page.getByText(/\(character \d+\)/)).toBeVisible();
  await expect(line).toHaveValue('title = "willow');
  await line.fill('subject = willow* not title = willow');
  await page.keyboard.press('Enter');
  await expect(
    page.getByText(/^\d+ records for “subject = willow\* not title = willow”, searched as a query/),
  ).toBeVisible();
});
