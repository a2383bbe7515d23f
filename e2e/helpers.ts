import AxeBuilder from '@axe-core/playwright';
import { expect, test as base, type Locator, type Page } from '@playwright/test';
import { existsSync, readFileSync } from 'node:fs';
import { resolve } from 'node:path';

/** Where the server of the tests of a project writes what goes wrong. */
const serverLog = (project: string): string => resolve(`.cache/e2e-server-${project}.log`);

/** A test that fails tells what was on its page, and what the server had to say meanwhile: all there is to go by on another machine. */
export const test = base.extend<{ tellsWhatWasThere: void }>({
  tellsWhatWasThere: [
    async ({ page }, use, info) => {
      const file = serverLog(info.project.name);
      const logged = existsSync(file) ? readFileSync(file, 'utf8').length : 0;
      const asked: string[] = [];
      page.on('response', (r) => void (r.status() >= 400 && asked.push(`${r.status()} ${r.url()}`)));
      page.on('pageerror', (error) => void asked.push(String(error)));
      const open = new Set<string>();
      page.on('request', (r) => void open.add(r.url()));
      page.on('requestfinished', (r) => void open.delete(r.url()));
      page.on('requestfailed', (r) => void open.delete(r.url()));
      await use();
      if (info.status === info.expectedStatus || page.isClosed()) return;
      const text = await page
        .locator('body')
        .innerText({ timeout: 5000 })
        .catch((error: unknown) => String(error));
      const log = existsSync(file) ? readFileSync(file, 'utf8').slice(logged) : '';
      process.stdout.write(
        [
          `--- ${info.title}`,
          `at ${page.url()}, not answered yet: ${[...open].join(' ') || 'nothing'}`,
          ...asked.slice(-20),
          '--- on the page',
          text.slice(0, 3000),
          '--- the server',
          log.slice(-3000),
          '---\n',
        ].join('\n'),
      );
    },
    { auto: true },
  ],
});

export const demoFile = (name: string): string => resolve('demo/files', name);

export async function signIn(page: Page, name = 'Nell Arkwright'): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name }).click();
  await expect(page.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
}

/** No violation of WCAG 2 A and AA on what is on screen. */
export async function accessible(page: Page): Promise<void> {
  // What passes is not collected, and style sheets are not read again for a rule that is not asked: the same violations in a third of the time. There
  // are no frames, which would need the other mode.
  const { violations } = await new AxeBuilder({ page })
    .options({ resultTypes: ['violations'], preload: false })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'])
    .setLegacyMode(true)
    .analyze();
  expect(
    violations.map(
      (v) =>
        `${v.id}: ${v.nodes
          .slice(0, 3)
          .map((n) => `${n.target.join(' ')} ${n.failureSummary ?? ''}`)
          .join(' | ')}`,
    ),
  ).toEqual([]);
}

/** What a keyboard scanner does: keys a few milliseconds apart, then Enter. */
export async function scan(page: Page, code: string): Promise<void> {
  // A page that is only just opening does not listen yet.
  await expect(page.locator('.scan-line input')).toBeVisible();
  await page.evaluate(
    (keys) => {
      let at = performance.now();
      for (const key of [...keys, 'Enter']) {
        const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
        Object.defineProperty(event, 'timeStamp', { value: (at += 6) });
        (document.activeElement && document.activeElement !== document.body
          ? document.activeElement
          : document.body
        ).dispatchEvent(event);
      }
    },
    [...code],
  );
}

/** Picks from one of the library's lists by keyboard. */
export async function pick(page: Page, label: string, text: string): Promise<void> {
  const box = page.getByRole('combobox', { name: label, exact: true });
  // What is picked may open a sheet over the page, under which a role is not found any more.
  const input = await box.elementHandle();
  await box.click();
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
  // The list folds away slowly, unless more can be picked; what is looked at next is the page without it. Whether it is one of those is asked of the
  // box and not of the list, which may be open still while the key is on its way.
  const many = await input?.evaluate((e) => e.closest('.ant-select-multiple') !== null);
  if (!many) await expect(page.locator('.ant-select-dropdown:visible')).toHaveCount(0);
}

export const status = (page: Page) => page.locator('.status-last');

/** Keeps a picture of a main view when the pictures are being refreshed. */
export async function picture(page: Page, name: string): Promise<void> {
  if (!process.env.OSIER_PICTURES) return;
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(300);
  await page.screenshot({ path: resolve(`docs/screenshots/${name}.png`) });
}

/**
 * Picks from the menu of the person until that has an effect: while an area is still being filled the list may close again, or a click on it be
 * lost.
 */
export async function fromPersonMenu(
  page: Page,
  person: string | RegExp,
  item: string,
  isDone: () => Promise<boolean>,
): Promise<void> {
  await expect(async () => {
    if (await isDone()) return;
    const entry = page.getByRole('menuitem', { name: item, exact: true });
    if (!(await entry.isVisible())) await page.getByRole('button', { name: person }).click({ timeout: 2000 });
    await entry.click({ timeout: 2000 });
    await expect.poll(isDone, { timeout: 5000 }).toBe(true);
  }).toPass({ timeout: 60_000 });
}

/** Goes to something by the Tab key alone. */
export async function tabTo(page: Page, target: Locator): Promise<void> {
  await expect(target).toBeVisible();
  for (let i = 0; i < 90; i++) {
    if (await target.evaluate((e) => e === document.activeElement || e.contains(document.activeElement)))
      return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`The Tab key does not reach ${String(target)}.`);
}
