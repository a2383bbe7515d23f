import { expect } from '@playwright/test';
import { accessible, pick, signIn, status, test } from './helpers';

test('a walk goes on without network: scans wait on the device, the page opens again, and all is sent once', async ({
  page,
  context,
}) => {
  test.setTimeout(120_000);
  await signIn(page);
  await page.keyboard.press('Alt+8');
  await page.getByRole('button', { name: 'Start a stocktake' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Without network');
  await pick(page, 'Branch', 'Millrace');
  await expect(page.getByText(/copies expected of/)).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Start the stocktake' }).click();
  await expect(status(page)).toContainText('Started the stocktake');
  await page.waitForURL(/stocktake\/\d+$/);
  const id = /stocktake\/(\d+)/.exec(page.url())![1]!;
  const shelf = await page.evaluate(async (of) => {
    const answer = await fetch(`/api/stocktakes/${of}/shelf`);
    return (await answer.json()) as {
      rows: { barcode: string; callNumber: string; location: string; status: string }[];
    };
  }, id);
  const open = shelf.rows.filter((c) => c.location === 'OPEN' && c.status === 'skipped');
  const [one, two, three, far] = [open[0]!, open[1]!, open[2]!, open[40]!];

  await page.setViewportSize({ width: 400, height: 800 });
  await page.goto(`/stocktake/${id}/walk`);
  await expect(page.getByText(/copies are on this device/)).toBeVisible();
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await page.reload();
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await expect(page.getByText(/copies are on this device/)).toBeVisible();
  const field = page.getByRole('textbox', { name: 'Millrace', exact: true });
  const scan = async (code: string) => {
    await field.fill(code);
    await field.press('Enter');
  };
  const sent = page.waitForResponse((r) => r.url().endsWith(`/stocktakes/${id}/scans`));
  await scan(one.barcode);
  await expect(page.getByText('In place')).toBeVisible();
  await expect(page.getByText('Next:')).toBeVisible();
  // The device says so by itself; the network goes only after the server has the scan.
  expect((await sent).ok()).toBe(true);

  await context.setOffline(true);
  await scan(two.barcode);
  await expect(page.getByText('In place')).toBeVisible();
  await scan('31204099999999');
  await expect(page.getByText('Kept on this device')).toBeVisible();
  await expect(page.getByRole('alert')).toContainText('2 scans wait on this device');
  await accessible(page);
  // The browser is closed and opened again, still without network.
  await page.reload();
  await expect(page.getByText(/copies are on this device/)).toBeVisible();
  await expect(page.getByRole('alert')).toContainText('2 scans wait on this device');
  await scan(three.barcode);
  await expect(page.getByRole('alert')).toContainText('3 scans wait on this device');

  await context.setOffline(false);
  await expect(page.getByRole('alert')).toHaveCount(0, { timeout: 30_000 });
  await scan(far.barcode);
  await expect(page.getByText(/copies between these two were not scanned/)).toBeVisible();
  // What the server has is undone there: told when it cannot be reached.
  const undo = page.getByRole('button', { name: 'Undo last scan' });
  await context.setOffline(true);
  await undo.click();
  await expect(page.getByRole('alert')).toContainText('The last scan stays as it is.');
  await context.setOffline(false);
  await undo.click();
  await expect(page.getByText('Scan undone')).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await scan(far.barcode);
  await expect(page.getByText('Scan undone')).toHaveCount(0);
  await expect(page.getByText('In place')).toBeVisible();
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole('link', { name: 'Findings' }).click();
  await expect(page.getByText('5 scans', { exact: true })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Unknown barcode' })).toBeVisible();
  await page.getByText('Walks and files').click();
  await expect(page.getByRole('cell', { name: 'Walk, Nell Arkwright' })).toHaveCount(2);
});
