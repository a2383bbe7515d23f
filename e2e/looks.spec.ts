import { expect } from '@playwright/test';
import { accessible, fromPersonMenu, signIn, test } from './helpers';

const AREAS = [
  '/today',
  '/deliveries',
  '/neighbours',
  '/catalogue/10',
  '/headings',
  '/copies',
  '/copies/all',
  '/stocktake',
  '/set-up?show=house',
  '/set-up?show=neighbours',
  '/copies/labels?record=10',
  '/catalogue?show=links',
  '/copies/holdings',
  '/daybook',
  '/withdrawals?show=weeding&branch=MR&used=2015',
  '/withdrawals?show=register',
  '/withdrawals?show=union',
];

for (const [colorScheme, width] of [
  ['dark', 1280],
  ['light', 400],
] as const)
  test(`every area is legible, and fits, by ${colorScheme} at ${width} px`, async ({ page }) => {
    await page.emulateMedia({ colorScheme });
    await page.setViewportSize({ width, height: 800 });
    await signIn(page);
    for (const area of AREAS) {
      await page.goto(area);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await expect(page.getByText('Opening…')).toHaveCount(0);
      await accessible(page);
      // Panes scroll, the window does not.
      const over = await page.evaluate(() => {
        const { scrollWidth, scrollHeight } = document.documentElement;
        return [scrollWidth - window.innerWidth, scrollHeight - window.innerHeight].map((n) =>
          Math.max(0, n),
        );
      });
      expect([area, ...over]).toEqual([area, 0, 0]);
    }
  });

test('the look, the branch and the areas are chosen; the scan line completes what is typed', async ({
  page,
}) => {
  await page.setViewportSize({ width: 400, height: 800 });
  await signIn(page);
  await page.getByRole('button', { name: 'Areas' }).click();
  await page.getByRole('navigation', { name: 'Areas, as a menu' }).getByText('Headings').click();
  await expect(page.getByRole('heading', { name: 'Headings', level: 1 })).toBeVisible();
  await fromPersonMenu(
    page,
    'Nell Arkwright, head',
    'Dark',
    async () => (await page.locator('html').getAttribute('data-theme')) === 'dark',
  );
  // The list may close again while the area behind it is still being filled.
  await expect(async () => {
    await page.getByRole('combobox', { name: 'My branch' }).click();
    await page.getByTitle('Millrace').click({ timeout: 2000 });
  }).toPass();
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await page.goto('/withdrawals?start=1');
  await expect(page.locator('form').getByText('Millrace')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.goto('/today');
  const line = page.getByRole('combobox', { name: 'Scan or search' });
  await line.fill('willow');
  await expect(page.getByRole('option').first()).toBeAttached();
  await line.press('ArrowDown');
  await line.press('Enter');
  await expect(page).toHaveURL(/\/catalogue\/\d+$/);
  await line.fill('hurdle');
  await line.press('Enter');
  await expect(page).toHaveURL(/\/catalogue\?q=hurdle$/);
  await page.goto('/today');
  await line.click();
  await line.press('ArrowDown');
  await expect(page.locator('.scan-choice').first()).toContainText('hurdle');
});
