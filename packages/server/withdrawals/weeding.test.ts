import type { WithdrawalList } from '@osier/contract';
import { candidatesIn, type WeedCell } from '@osier/core/withdrawals';
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
  const cells = await cellsOf('branch=MR&from=600&to=699');
  const rows = await t.running.services.store.rows<{ year: string; seen: string; copies: number }>(
    `SELECT r.year, substr(json_extract(c.value, '$.lastSeen'), 1, 4) AS seen, COUNT(*) AS copies
       FROM copies c JOIN holdings h ON h.id = c.holding JOIN records r ON r.id = h.record
      WHERE h.branch = 'MR' AND c.status IN ('available', 'damaged') AND substr(json_extract(h.value, '$.class'), 1, 1) = '6'
        AND json_extract(h.value, '$.scheme') = 'dewey' AND json_extract(h.value, '$.prefix') = '' GROUP BY 1, 2 ORDER BY 1, 2`,
  );
  expect(rows.length).toBeGreaterThan(20);
  expect(cells.map(({ year, seen, copies }) => ({ year, seen, copies }))).toEqual(rows);
  expect(await cellsOf('branch=XX')).toEqual([]);
  expect((await assistant!('GET', '/weeding')).status).toBe(422);
});

test('candidates go to a list: as many as the picture says; where only spare ones go, a copy of each title stays', async () => {
  const place = { branch: 'MR', location: '', scheme: 'dewey', from: '', to: '' };
  const cells = await cellsOf('branch=MR');
  const limits = { publishedBefore: 2005, seenBefore: 2026, spareOnly: false };
  const old = await listOf({ ...place, ...limits });
  expect(old.added).toBe(sum(cells, (c) => candidatesIn(c, limits)));
  expect(old.added).toBeGreaterThan(5);
  expect(new Set(old.codes).size).toBe(old.added);

  const spare = { publishedBefore: null, seenBefore: null, spareOnly: true };
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
