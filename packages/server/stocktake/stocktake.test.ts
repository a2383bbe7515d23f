import type { Problem, Review, StocktakeDetail, StocktakeRow } from '@osier/contract';
import type { StockFindingKind } from '@osier/core/stocktake';
import { readFileSync } from 'node:fs';
import { catalogueOf, demoFile, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let [head, cataloguer, assistant]: Ask[] = [];
beforeAll(async () => {
  t = await startTesting();
  [head, cataloguer, assistant] = [await t.as(1), await t.as(2), await t.as(3)];
});
afterAll(() => t.stop());
const codes = readFileSync(demoFile('stocktake-millrace-746.txt'), 'utf8').trim().split(/\r?\n/);
const stretch = {
  name: 'Textiles',
  branch: 'MR',
  locations: ['OPEN'],
  scheme: 'dewey',
  from: '746',
  to: '746',
};
const start = async () => (await head!<{ id: number }>('POST', '/stocktakes', stretch)).body.id;
const detail = async (id: number) => (await assistant!<StocktakeDetail>('GET', `/stocktakes/${id}`)).body;
const count = (s: StocktakeDetail, kind: StockFindingKind) =>
  s.result.findings.filter((f) => f.kind === kind).length;

test('a walk loaded from a file: what is missing, wrong, unknown, out of order, jumped', async () => {
  const id = await start();
  const loaded = await assistant!<{ entry: number }>('POST', `/stocktakes/${id}/load`, {
    name: 'walk.txt',
    codes,
  });
  const s = await detail(id);
  expect(s.result).toMatchObject({ scans: codes.length, scannedTwice: 1 });
  expect(s.expected).toBe(s.found + s.result.accountedFor + count(s, 'not-found'));
  expect(count(s, 'unknown')).toBe(2);
  expect(s.result.findings.filter((f) => f.kind === 'unknown').every((f) => f.near?.length === 1)).toBe(true);
  expect(count(s, 'out-of-order')).toBeGreaterThanOrEqual(1);
  expect(count(s, 'should-not-be-here')).toBeGreaterThanOrEqual(3);
  expect(s.result.jumps).toHaveLength(1);
  expect((await cataloguer!('POST', `/daybook/${loaded.body.entry}/undo`)).status).toBe(200);
  expect((await detail(id)).result.scans).toBe(0);
});

test('scans one by one count at once', async () => {
  const id = await start();
  const [first] = (await detail(id)).result.findings;
  await assistant!('POST', `/stocktakes/${id}/scans`, { codes: [` ${first!.code}\r`] });
  expect(await detail(id)).toMatchObject({ found: 1, scans: 1 });
});

test('findings are settled as reviewed, and taken back', async () => {
  const before = await catalogueOf(t.running);
  const id = await start();
  await assistant!('POST', `/stocktakes/${id}/load`, { name: 'walk.txt', codes });
  const s = await detail(id);
  const by = (act: string) =>
    s.result.findings
      .filter((f) => f.settlements[0] === act && f.copy)
      .map((f) => ({ copy: f.copy!.copyId, act }));
  const items = [...by('mark-missing').slice(0, 3), ...by('mark-found'), ...by('correct-location')];
  expect(new Set(items.map((i) => i.act)).size).toBe(3);
  const review = (await cataloguer!<Review>('POST', `/stocktakes/${id}/settle/review`, { items })).body;
  expect(review.count).toBe(items.length);
  expect((await assistant!('POST', `/stocktakes/${id}/settle`, { items })).status).toBe(403);
  const done = await cataloguer!<{ entry: number; sentence: string }>('POST', `/stocktakes/${id}/settle`, {
    items,
  });
  expect(done.body.sentence).toContain('3 marked missing');
  const after = await detail(id);
  expect(count(after, 'not-found')).toBe(count(s, 'not-found') - 3);
  const moved = new Set(items.filter((i) => i.act === 'correct-location').map((i) => i.copy));
  const still = after.result.findings.filter(
    (f) => f.settlements.includes('correct-location') && moved.has(f.copy!.copyId),
  );
  expect(still).toEqual([]);
  expect((await cataloguer!<Problem>('POST', `/stocktakes/${id}/settle`, { items })).status).toBe(409);
  expect((await cataloguer!('POST', `/daybook/${done.body.entry}/undo`)).status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('closing notes when every copy was last seen; a closed one takes no scans', async () => {
  const id = await start();
  await assistant!('POST', `/stocktakes/${id}/load`, { name: 'walk.txt', codes });
  expect((await cataloguer!('POST', `/stocktakes/${id}/close`)).status).toBe(403);
  expect((await head!('POST', `/stocktakes/${id}/close`)).status).toBe(200);
  expect(
    (await assistant!<Problem>('POST', `/stocktakes/${id}/scans`, { codes: ['1'] })).body.detail,
  ).toContain('closed');
  const [row] = (await head!<StocktakeRow[]>('GET', '/stocktakes')).body;
  expect(row!.stocktake.state).toBe('closed');
});

test('only the head starts; what is not a stretch is told at the field', async () => {
  expect((await cataloguer!('POST', '/stocktakes', stretch)).status).toBe(403);
  const bad = (await head!<Problem>('POST', '/stocktakes', { ...stretch, name: '', branch: 'XX' })).body;
  expect(bad.fields).toEqual([{ field: 'name', message: 'Give the stocktake a name.' }]);
  expect((await head!<Problem>('POST', '/stocktakes', { ...stretch, branch: 'MX' })).body.detail).toContain(
    'Nearest: MR (Millrace)',
  );
});
