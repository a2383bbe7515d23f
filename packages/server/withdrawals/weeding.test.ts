import type { WithdrawalList } from '@osier/contract';
import { candidatesIn, type WeedCell, type WeedLimits } from '@osier/core/withdrawals';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let [cataloguer, assistant]: Ask[] = [];
beforeAll(async () => {
  t = await startTesting();
  [cataloguer, assistant] = [await t.as(2), await t.as(3)];
});
afterAll(() => t.stop());

const cellsOf = async (query: string) =>
  (await assistant!<{ cells: WeedCell[] }>('GET', `/weeding?${query}`)).body.cells;
const sum = (cells: readonly WeedCell[], of: (c: WeedCell) => number) => cells.reduce((n, c) => n + of(c), 0);

let lists = 0;
async function listOf(
  weed: object,
): Promise<{ status: number; added: number; codes: string[]; detail: string }> {
  const { body } = await cataloguer!<{ id: number }>('POST', '/withdrawal-lists', {
    ...{ name: `Weeds ${++lists}`, branch: 'MR', reason: '' },
  });
  const path = `/withdrawal-lists/${body.id}`;
  const filled = await cataloguer!<{ added: number; detail: string }>('POST', `${path}/fill`, { weed });
  const { verdicts } = (await cataloguer!<WithdrawalList>('GET', path)).body;
  await cataloguer!('DELETE', path);
  return { status: filled.status, ...filled.body, codes: verdicts.map((v) => v.code) };
}

test('the copies of a shelf are counted by year of publication and last seen, as an independent statement counts them', async () => {
  const cells = await cellsOf('branch=MR&from=600&to=699&use=seen');
  const rows = await t.running.services.store.rows<{ year: string; seen: string; copies: number }>(
    `SELECT r.year, substr(json_extract(c.value, '$.lastSeen'), 1, 4) AS seen, COUNT(*) AS copies
       FROM copies c JOIN holdings h ON h.id = c.holding JOIN records r ON r.id = h.record
      WHERE h.branch = 'MR' AND c.status IN ('available', 'damaged') AND substr(json_extract(h.value, '$.class'), 1, 1) = '6'
        AND json_extract(h.value, '$.scheme') = 'dewey' AND json_extract(h.value, '$.prefix') = '' GROUP BY 1, 2 ORDER BY 1, 2`,
  );
  expect(rows.length).toBeGreaterThan(20);
  expect(cells.map(({ year, used, copies }) => ({ year, seen: used, copies }))).toEqual(rows);
  expect(await cellsOf('branch=XX')).toEqual([]);
  expect((await assistant!('GET', '/weeding')).status).toBe(422);
});

test('candidates go to a list: as many as the picture says; where only spare ones go, a copy of each title stays', async () => {
  const place = { branch: 'MR', location: '', scheme: 'dewey', from: '', to: '', use: 'seen' };
  const cells = await cellsOf('branch=MR&use=seen');
  const limits: WeedLimits = { publishedBefore: 2005, usedBefore: 2026, spareOnly: false };
  const old = await listOf({ ...place, ...limits });
  expect(old.added).toBe(sum(cells, (c) => candidatesIn(c, limits)));
  expect(old.added).toBeGreaterThan(5);
  expect(new Set(old.codes).size).toBe(old.added);

  const spare: WeedLimits = { publishedBefore: null, usedBefore: null, spareOnly: true };
  const spared = await listOf({ ...place, ...spare });
  expect(spared.added).toBe(sum(cells, (c) => c.spare));
  expect(spared.added).toBeGreaterThan(5);
  const left = await t.running.services.store.rows<{ n: number }>(
    `SELECT COUNT(*) AS n FROM copies c JOIN holdings h ON h.id = c.holding WHERE h.branch = 'MR' AND c.status IN ('available', 'damaged')
        AND c.barcode NOT IN (SELECT value FROM json_each(:codes)) GROUP BY h.record, ifnull(json_extract(c.value, '$.part'), '') HAVING n <> 1`,
    { codes: JSON.stringify(spared.codes) },
  );
  expect(left).toEqual([]);

  const none = await listOf({ ...place, ...limits, publishedBefore: 1001 });
  expect([none.status, none.detail]).toEqual([422, 'No copy of this shelf is a candidate.']);
});

test('by last loan: what was never lent is a candidate, what no figures are known of is none, the least lent of a title go first', async () => {
  const { services } = t.running;
  const cells = await cellsOf('branch=MR&use=lent');
  const rows = await services.store.rows<{ used: string; copies: number }>(
    `SELECT CASE WHEN json_extract(c.value, '$.lastLoan') IS NOT NULL THEN substr(json_extract(c.value, '$.lastLoan'), 1, 4)
                 WHEN json_extract(c.value, '$.loans') = 0 THEN 'never' ELSE 'unknown' END AS used, COUNT(*) AS copies
       FROM copies c JOIN holdings h ON h.id = c.holding WHERE h.branch = 'MR' AND c.status IN ('available', 'damaged') GROUP BY 1 ORDER BY 1`,
  );
  const counted = new Map<string, number>();
  for (const { used, copies } of cells) {
    const name = used === null ? 'unknown' : used === '' ? 'never' : used;
    counted.set(name, (counted.get(name) ?? 0) + copies);
  }
  expect([...counted].sort().map(([used, copies]) => ({ used, copies }))).toEqual(rows);
  expect(rows.find((r) => r.used === 'never')!.copies).toBeGreaterThan(5);
  expect(rows.find((r) => r.used === 'unknown')!.copies).toBeGreaterThan(5);

  const place = { branch: 'MR', location: '', scheme: 'dewey', from: '', to: '', use: 'lent' };
  const limits: WeedLimits = { publishedBefore: null, usedBefore: 2015, spareOnly: true };
  const { codes, added } = await listOf({ ...place, ...limits });
  expect(added).toBe(sum(cells, (c) => candidatesIn(c, limits)));
  expect(added).toBeGreaterThan(0);
  const [copies, all] = [
    await services.store.find('copy', { where: { barcode: codes } }),
    await services.store.find('copy', { where: { branch: 'MR', status: ['available', 'damaged'] } }),
  ];
  const recordOf = new Map((await services.store.find('holding', {})).map((h) => [h.id, h.value.record]));
  for (const { value } of copies) {
    expect(value.loans).toBeDefined();
    expect((value.lastLoan ?? '') < '2015').toBe(true);
    // A copy of the same part stays that is in no worse state, and was lent as often or more, or of which nothing is known.
    const better = all.filter(
      (o) =>
        recordOf.get(o.value.holding) === recordOf.get(value.holding) &&
        (o.value.part ?? '') === (value.part ?? '') &&
        !codes.includes(o.value.barcode),
    );
    const isWorn = (c: typeof value) => c.status === 'damaged' || c.condition !== '';
    expect(
      better.some((o) => isWorn(value) || (!isWorn(o.value) && (o.value.loans ?? Infinity) >= value.loans!)),
    ).toBe(true);
  }
});
