import { expect } from '@playwright/test';
import { accessible, signIn, status, test } from './helpers';

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
  const list = page.getByRole('listbox', { name: 'Names', exact: true });
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

test('series and works by name and title are browsed as headings, and lead to their authority records', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/catalogue?show=browse&list=titleheading');
  const start = page.getByRole('textbox', { name: 'Start at' });
  await start.fill('fenland');
  await start.press('Enter');
  const list = page.getByRole('listbox', { name: 'Title headings', exact: true });
  await list.getByText('Fenland trades', { exact: true }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'Fenland trades' })).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Open the heading' }).click();
  await expect(page.getByRole('heading', { name: 'Fenland trades' })).toBeVisible();
  await expect(page.getByText(/^Heading \d+ · title/)).toBeVisible();
  await page.goto('/headings?show=all&kind=name-title');
  await page
    .getByRole('option', { name: /Letters to a workshop/ })
    .first()
    .click();
  await expect(
    page.getByRole('heading', { name: /\. Letters to a workshop$|- Letters to a workshop$/ }),
  ).toBeVisible();
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
  await expect(status(page)).toContainText('Saved the search “Willow of Reedling”');
  await page.goto('/today');
  const saved = page.getByRole('region', { name: 'Saved searches' });
  await expect(saved.getByText(/^\d+ records?$/)).toBeVisible();
  await accessible(page);
  await saved.getByRole('link', { name: 'Willow of Reedling' }).click();
  await expect(line).toHaveValue(/^words all "willow\*" and supplier = "\w+"$/);

  // It is changed where it stands: its name, and what is searched for.
  await page.goto('/catalogue');
  await page.getByRole('button', { name: 'Change the saved search Willow of Reedling' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Give the search a name.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Name' }).fill('Hurdles of Reedling');
  await page.getByRole('textbox', { name: 'Words or query' }).fill('hurdle');
  await accessible(page);
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: 'Hurdles of Reedling', exact: true }).click();
  await expect(page).toHaveURL(/q=hurdle$/);
});

test('the shelf around a title is walked by keyboard; what is found goes on to its copies, their labels and a withdrawal list', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/catalogue?show=browse&list=callnumber&from=674');
  const strip = page.getByRole('slider', { name: /^The shelf around/ });
  await expect(strip).toHaveAttribute('aria-valuetext', /^674/);
  const first = await strip.getAttribute('aria-valuetext');
  await strip.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(strip).not.toHaveAttribute('aria-valuetext', first!);
  const said = (await strip.getAttribute('aria-valuetext'))!;
  await page.keyboard.press('Enter');
  // What stands before is opened, and the list begins with it.
  await expect(
    page.getByRole('link', { name: said.split(' ').slice(0, 2).join(' '), exact: true }),
  ).toBeVisible();
  await expect(strip).toHaveAttribute('aria-valuetext', said);
  await accessible(page);

  await page.goto('/catalogue?q=willow&branch=MR');
  await expect(page.getByText(/records for “willow”/)).toBeVisible();
  await page.getByRole('listbox', { name: 'Records', exact: true }).focus();
  await page.keyboard.press('o');
  const copies = page.getByRole('heading', { name: 'Copies', level: 1 }).locator('..');
  await expect(copies.getByText(/^\d+ copies\.$/)).toBeVisible();
  await page.getByRole('listbox', { name: 'Copies', exact: true }).focus();
  await page.keyboard.press('x');
  await expect(page.getByText(/labels? on \d+ pages?/)).toBeVisible();
  await page.goBack();
  await expect(copies.getByText(/^\d+ copies\.$/)).toBeVisible();
  const found = Number(/\d+/.exec((await copies.getByText(/^\d+ copies\.$/).textContent())!)![0]);
  await page.getByRole('listbox', { name: 'Copies', exact: true }).focus();
  await page.keyboard.press('w');
  await page.getByRole('menuitem', { name: 'New list for MR' }).press('Enter');
  await expect(page).toHaveURL(/\/withdrawals\/\d+$/);
  await expect(page.getByText(new RegExp(`\\b${found} (copies|barcodes)`)).first()).toBeVisible();
  // Other journeys begin without it.
  const id = new URL(page.url()).pathname.split('/').at(-1);
  const gone = await page.evaluate(
    async (list) => (await fetch(`/api/withdrawal-lists/${list}`, { method: 'DELETE' })).status,
    id,
  );
  expect(gone).toBe(200);
});

test('headings are found by a query, and a query that cannot be read says where', async ({ page }) => {
  await signIn(page);
  await page.goto('/headings?show=all');
  const line = page.getByRole('textbox', { name: 'Find headings' });
  await line.fill('kind = corporate and records > 0');
  const list = page.getByRole('listbox', { name: 'Headings', exact: true });
  await expect(list.getByText('corporate name').first()).toBeVisible();
  await expect(list.getByText('personal name')).toHaveCount(0);
  await line.fill('kind = corporate and records > many');
  await expect(page.getByText('“many” is no number.')).toBeVisible();
  await expect(line).toHaveValue('kind = corporate and records > many');
});
