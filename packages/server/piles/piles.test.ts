import type {
  JobState,
  PileDetail,
  PileRow,
  PileScans,
  Problem,
  RecordDetail,
  Review,
  SearchAnswer,
  SearchFacetCounts,
} from '@osier/contract';
import { readFileSync } from 'node:fs';
import { demoFile, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
let assistant: Ask;
beforeAll(async () => {
  t = await startTesting();
  [cataloguer, assistant] = [await t.as(2), await t.as(3)];
});
afterAll(() => t.stop());

const find = async (query: string) => (await cataloguer<SearchAnswer>('GET', `/records?${query}`)).body;
const pile = async (id: number) => (await cataloguer<PileDetail>('GET', `/piles/${id}`)).body;
const piles = async () => (await cataloguer<PileRow[]>('GET', '/piles')).body;
const begin = async (name: string, of: 'record' | 'copy') =>
  (await cataloguer<{ id: number }>('POST', '/piles', { name, of })).body.id;
const fill = async (body: object) => {
  const { body: job, status } = await cataloguer<JobState>('POST', '/piles/fill', body);
  expect(status).toBe(202);
  return t.jobDone(cataloguer, job.id);
};
const undo = (entry: number | null) => cataloguer('POST', `/daybook/${entry}/undo`);
const scan = async (id: number, ...codes: string[]) =>
  (await cataloguer<PileScans>('POST', `/piles/${id}/scans`, { codes })).body;

test('what a search finds is put on a new pile, searched there, added to, and taken back', async () => {
  const found = await find('q=hurdle');
  const done = await fill({ name: 'Hurdles', q: 'hurdle' });
  expect(done.message).toBe(`Added ${found.total} records to the pile “Hurdles”.`);
  const made = (await piles()).find((p) => p.name === 'Hurdles')!;
  expect(made).toMatchObject({ of: 'record', count: found.total, by: 'Tobias Fenn' });
  const on = await pile(made.id);
  expect(on.rows.map((r) => r.object).sort()).toEqual(found.rows.map((r) => r.id).sort());

  // The same search once more adds nothing; a wider one adds only what is new.
  expect((await fill({ into: made.id, q: 'hurdle' })).message).toContain(
    `Added 0 records to the pile “Hurdles”. ${found.total} records were there already.`,
  );
  const german = await find('language=ger');
  await fill({ into: made.id, q: '', language: 'ger' });
  expect((await pile(made.id)).count).toBe(new Set([...found.rows, ...german.rows].map((r) => r.id)).size);

  // A search within it, and its facets.
  const within = await find(`pile=${made.id}&q=hurdle`);
  expect(within).toMatchObject({ total: found.total, within: 'the pile “Hurdles”' });
  const all = await find(`pile=${made.id}`);
  expect(all.total).toBe((await pile(made.id)).count);
  const counts = (await cataloguer<SearchFacetCounts>('GET', `/records/facets?pile=${made.id}`)).body;
  expect(counts.language.ger).toBe(german.total);

  // The pile cannot go from under what was added since.
  const refused = await cataloguer<Problem>('POST', `/daybook/${done.entry}/undo`);
  expect(refused.status).toBe(409);
  expect(refused.body.conflicts![0]!.message).toContain('something has been added to it since');
});

test('a pile that was made from a search goes with it when that is taken back, and comes again', async () => {
  const done = await fill({ name: 'Thatch', q: 'thatch' });
  const { id, count } = (await piles()).find((p) => p.name === 'Thatch')!;
  const undone = await undo(done.entry);
  expect(undone.status).toBe(200);
  expect((await piles()).some((p) => p.id === id)).toBe(false);
  await undo(undone.body.entry as number);
  expect((await pile(id)).count).toBe(count);
});

test('scans: barcodes, ISBNs and record numbers; once each; what is not known is told', async () => {
  const { body: one } = await cataloguer<RecordDetail>('GET', '/records/1');
  const { copy } = one.holdings[0]!.copies[0]!;
  const isbn = (await find('q=')).rows.find((r) => r.isbn)!;
  const records = await begin('Trolley of records', 'record');
  const answer = await scan(
    records,
    `A${copy.barcode}B`,
    isbn.isbn,
    'record 7',
    'record 7',
    '99999',
    'record 90000',
  );
  expect(answer).toMatchObject({ added: 3, repeated: 1 });
  expect(answer.unknown.map((u) => u.code)).toEqual(['99999', 'record 90000']);
  expect(answer.unknown[1]!.message).toBe('There is no record 90000.');
  expect((await pile(records)).rows.map((r) => r.object).sort()).toEqual([1, 7, isbn.id].sort());

  const copies = await begin('Trolley of copies', 'copy');
  expect(await scan(copies, copy.barcode, 'record 7')).toMatchObject({
    added: 1,
    unknown: [{ code: 'record 7' }],
  });
  expect((await pile(copies)).rows[0]).toMatchObject({
    barcode: copy.barcode,
    record: 1,
    status: copy.status,
  });
  expect((await find(`pile=${copies}`)).rows.map((r) => r.id)).toEqual([1]);
  expect((await scan(copies, copy.barcode)).entry).toBeNull();

  // Taken off, put on again, and the taking off taken back: it lies there once.
  const off = await cataloguer('POST', `/piles/${copies}/take-off`, {
    objects: [(await pile(copies)).rows[0]!.object],
  });
  expect((await pile(copies)).count).toBe(0);
  await scan(copies, copy.barcode);
  // It was scanned onto the pile again meanwhile: there is nothing left to bring back.
  expect((await undo(off.body.entry as number)).status).toBe(422);
  expect(await pile(copies)).toMatchObject({ count: 1, gone: 0 });
  expect((await pile(copies)).rows).toHaveLength(1);
});

test('a pile of copies takes those of the records found, at the branch of the search', async () => {
  const found = await find('q=willow&branch=MR');
  await fill({ name: 'Willow at the mill', of: 'copy', q: 'willow', branch: 'MR' });
  const on = await pile((await piles()).find((p) => p.name === 'Willow at the mill')!.id);
  expect(on.count).toBeGreaterThan(0);
  expect(new Set(on.rows.map((r) => r.place.split(',')[0]))).toEqual(new Set(['Millrace']));
  expect(new Set(on.rows.map((r) => r.record)).size).toBeLessThanOrEqual(found.total);
});

test('a recipe runs over a pile by the same review sheet, and over nothing else', async () => {
  const steps = [{ step: 'drop-subdivision', text: 'Juvenile literature' }];
  const recipe = (await cataloguer<{ id: number }>('POST', '/recipes', { name: 'Grown-ups', steps })).body.id;
  const all = await find('q=650{$v~\\Juvenile%20literature}');
  const [first, second] = all.rows;
  const id = await begin('Two for grown-ups', 'record');
  await scan(id, `record ${first!.id}`, `record ${second!.id}`, 'record 1');
  const body = { recipe: String(recipe), pile: id };
  const review = (await cataloguer<Review>('POST', '/records/clean/review', body)).body;
  expect(review.sentence).toBe('“Grown-ups” changes 2 of 3 records.');
  const begun = await cataloguer<JobState>('POST', '/records/clean', body);
  expect(begun.body.title).toBe('Running “Grown-ups” over the pile “Two for grown-ups”');
  const done = await t.jobDone(cataloguer, begun.body.id);
  expect(done.message).toBe('“Grown-ups” changed 2 records.');
  for (const row of review.rows)
    expect((await cataloguer<RecordDetail>('GET', `/records/${row.id}`)).body.marc).toEqual(
      (row.after as { marc: unknown }).marc,
    );
  const after = await find('q=650{$v~\\Juvenile%20literature}');
  expect(after.total).toBe(all.total - 2);
  await undo(done.entry);
  expect((await find('q=650{$v~\\Juvenile%20literature}')).total).toBe(all.total);
});

test('names are given, free and short; a version that is old is refused; a pile away is brought back whole', async () => {
  const id = await begin('For the binder', 'copy');
  const { body: one } = await cataloguer<RecordDetail>('GET', '/records/1');
  await scan(id, one.holdings[0]!.copies[0]!.copy.barcode);
  expect((await cataloguer('POST', '/piles', { name: 'For the binder', of: 'copy' })).status).toBe(422);
  expect((await cataloguer('POST', '/piles', { name: ' ', of: 'copy' })).status).toBe(422);
  expect((await cataloguer('POST', '/piles', { name: 'x', of: 'heading' })).status).toBe(422);
  expect((await assistant('POST', '/piles', { name: 'x', of: 'copy' })).status).toBe(403);
  const renamed = await cataloguer('PUT', `/piles/${id}`, {
    version: 1,
    name: '<b>Binder</b>',
    note: 'June',
  });
  expect(renamed.body.sentence).toBe('Renamed the pile “For the binder” to “<b>Binder</b>”');
  expect((await cataloguer('PUT', `/piles/${id}`, { version: 1, name: 'Old', note: '' })).status).toBe(409);
  const gone = await cataloguer('POST', `/piles/${id}/remove`, { version: 2 });
  expect((await cataloguer('GET', `/piles/${id}`)).status).toBe(404);
  expect((await cataloguer('GET', `/records?pile=${id}`)).status).toBe(422);
  await undo(gone.body.entry as number);
  expect(await pile(id)).toMatchObject({ name: '<b>Binder</b>', note: 'June', count: 1 });
});

test('what is wrong with filling a pile is told, and no pile is made', async () => {
  const before = (await piles()).length;
  const refused = async (body: object) =>
    (await cataloguer<Problem>('POST', '/piles/fill', body)).body.detail;
  expect(await refused({ q: 'zzzzqq', name: 'Nothing' })).toContain('Nothing is found');
  expect(await refused({ q: 'willow' })).toContain('Give the pile a name');
  expect(await refused({ q: 'willow', into: 9999 })).toContain('Pile 9999 is not there.');
  expect(await refused({ q: '', pile: 9999, name: 'x' })).toBe('There is no pile 9999.');
  expect((await piles()).length).toBe(before);
});

test('a new pile that is taken away while it is filled is not begun once more, and that is told', async () => {
  const { store } = t.running.services;
  const { body: job } = await cataloguer<JobState>('POST', '/piles/fill', { name: 'Everything', q: '' });
  let made: PileRow | undefined;
  while (!made) made = (await piles()).find((p) => p.name === 'Everything');
  await cataloguer('POST', `/piles/${made.id}/remove`, { version: made.version });
  const done = await t.jobDone(cataloguer, job.id);
  const standing = await store.read('pile', made.id);
  // Seven pieces more were to come; if the last was written already, there was nothing left to refuse.
  if (done.state === 'failed') expect(done.message).toContain('was deleted meanwhile');
  expect(standing).toBeNull();
});

test('what goes from the catalogue leaves a gap on the pile, and fills it when it comes back', async () => {
  const { body: arrived } = await cataloguer<{ delivery: number; job: number }>(
    'POST',
    '/deliveries?name=lyngby-exchange.xml',
    readFileSync(demoFile('lyngby-exchange.xml')),
  );
  const { delivery } = arrived;
  const doAndWait = async (path: string) =>
    t.jobDone(cataloguer, (await cataloguer<JobState>('POST', path, {})).body.id);
  await t.jobDone(cataloguer, arrived.job);
  expect((await find(`delivery=${delivery}`)).total).toBe(0);
  await doAndWait(`/deliveries/${delivery}/accept`);
  const accepted = await find(`delivery=${delivery}`);
  expect(accepted.total).toBeGreaterThan(5);
  expect(accepted.within).toBe('the delivery “lyngby-exchange.xml”');
  await fill({ name: 'From Lyngby', delivery });
  const { id } = (await piles()).find((p) => p.name === 'From Lyngby')!;
  expect(await pile(id)).toMatchObject({ count: accepted.total, gone: 0 });
  const back = await doAndWait(`/deliveries/${delivery}/take-back`);
  expect(await pile(id)).toMatchObject({ count: accepted.total, gone: accepted.total, rows: [] });
  expect((await find(`pile=${id}`)).total).toBe(0);
  await undo(back.entry);
  expect(await pile(id)).toMatchObject({ count: accepted.total, gone: 0 });
});
