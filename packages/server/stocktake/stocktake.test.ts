import type {
  Problem,
  RecordDetail,
  Review,
  ScanAnswer,
  StocktakeDetail,
  StocktakeRow,
  WithdrawalList,
} from '@osier/contract';
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

test('a scan is answered with what it is, what stands next, and how far the walk is; sent again it counts once', async () => {
  const id = await start();
  const { expected, result } = await detail(id);
  const [first, , , later] = result.findings.map((f) => f.copy!);
  const send = async (number: number, ...scans: string[]) =>
    (
      await assistant!<ScanAnswer>('POST', `/stocktakes/${id}/scans`, {
        codes: scans,
        from: { device: 'phone', run: 'morning', number },
      })
    ).body;
  const one = await send(0, ` a${first!.barcode}B `);
  expect(one).toMatchObject({ added: 1, found: 1, expected });
  expect(one.verdicts).toEqual([
    {
      ...{ code: first!.barcode, outcome: 'in place', title: first!.title },
      ...{ callNumber: first!.callNumber, message: '' },
    },
  ]);
  const second = one.next!;
  expect([first!.barcode, later!.barcode]).not.toContain(second.barcode);
  // Lost on the way back: the same once more, with one more behind it.
  const again = await send(0, first!.barcode, later!.barcode);
  expect(again).toMatchObject({ added: 1, found: 2 });
  expect(again.verdicts.map((v) => v.outcome)).toEqual(['in place', 'in place']);
  const back = await send(2, second.barcode, '999', first!.barcode);
  expect(back.verdicts.map((v) => v.outcome)).toEqual(['out-of-order', 'unknown', 'scanned before']);
  expect(back.verdicts[0]!.message).toContain(`belongs before ${later!.callNumber}`);
  const row = (await head!<StocktakeRow[]>('GET', '/stocktakes')).body.find((r) => r.id === id);
  expect(row).toMatchObject({ found: 3, scans: 5, findings: null, expected });
  expect(await detail(id)).toMatchObject({ found: 3, scans: 5, result: { scannedTwice: 1 } });
});

test('a copy added later is not expected; a closed stocktake keeps its result', async () => {
  const id = await start();
  const before = await detail(id);
  const [some] = before.result.findings;
  const { holdings } = (await cataloguer!<RecordDetail>('GET', `/records/${some!.copy!.recordId}`)).body;
  const made = await cataloguer!<{ entry: number }>('POST', '/copies', {
    holding: holdings.find((h) => h.copies.some((c) => c.id === some!.copy!.copyId))!.id,
    ...{ barcode: '31204770000999', type: 'BK', keepBarcode: true },
  });
  expect(made.status).toBe(201);
  expect((await detail(id)).expected).toBe(before.expected);
  await assistant!('POST', `/stocktakes/${id}/load`, { name: 'walk.txt', codes: codes.slice(0, 20) });
  const open = await detail(id);
  const closed = await head!<{ entry: number }>('POST', `/stocktakes/${id}/close`);
  const kept = await detail(id);
  expect(kept.result).toEqual(open.result);
  // What becomes of its copies later changes nothing of it.
  const found = open.result.spines.find((s) => s.state === 'in place')!;
  const list = await cataloguer!<{ id: number }>('POST', '/withdrawal-lists', {
    name: `W${id}`,
    branch: 'MR',
  });
  await cataloguer!('POST', `/withdrawal-lists/${list.body.id}/scans`, { codes: [found.code] });
  const { verdicts } = (await head!<WithdrawalList>('GET', `/withdrawal-lists/${list.body.id}`)).body;
  const gone = await head!<{ entry: number }>('POST', `/withdrawal-lists/${list.body.id}/withdraw`, {
    copies: verdicts.map((v) => v.candidate!.copyId),
  });
  expect(gone.status).toBe(200);
  expect(await detail(id)).toEqual(kept);
  for (const entry of [gone.body.entry, closed.body.entry, made.body.entry])
    expect((await head!('POST', `/daybook/${entry}/undo`)).status).toBe(200);
  expect((await detail(id)).stocktake.state).toBe('open');
  expect((await detail(id)).result).toEqual(open.result);
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
