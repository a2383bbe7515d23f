import type { AlikePage, LookUp, Problem, RecordDetail, Review, SearchAnswer } from '@osier/contract';
import { barcodeFor } from '@osier/core/barcodes';
import { COPY_BARCODES } from '../../../demo/barcodes';
import { begunRecord, STARTERS } from '@osier/core/editing';
import { DEFAULT_HOUSE } from '@osier/core/house';
import { field, withField, type MarcRecord } from '@osier/core/marc';
import { mergeFields } from '@osier/core/matching';
import { catalogueOf, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
beforeAll(async () => {
  t = await startTesting();
  cataloguer = await t.as(2);
});
afterAll(() => t.stop());
const detail = async (id: number) => (await cataloguer<RecordDetail>('GET', `/records/${id}`)).body;
const settled = () => t.running.services.background.idle();
const groups = async (): Promise<AlikePage> => {
  await settled();
  return (await cataloguer<AlikePage>('GET', '/records/alike')).body;
};
interface Done {
  readonly id: number;
  readonly entry: number;
  readonly sentence: string;
}

let serial = 77_300_000;
/** Adds a book with a holding and copies; `isbn` in any form. */
async function add(
  title: string,
  isbn: string,
  places: readonly string[],
  more: readonly MarcRecord['fields'][number][] = [],
) {
  const marc = [
    field('020', '  ', 'a', isbn),
    field('245', '10', 'a', title),
    field('264', ' 1', 'c', '2020.'),
    field('300', '  ', 'a', '90 pages'),
    ...more,
  ].reduce(withField, begunRecord(STARTERS.book!, '2026-11-28', 'eng'));
  const likely = (await cataloguer<{ rows: { record: number }[] }>('POST', '/records/likely', { marc })).body
    .rows;
  const made = await cataloguer<Done>('POST', '/records', {
    marc,
    withErrors: true,
    despite: likely.map((l) => l.record),
  });
  for (const branch of places) {
    const place = { MR: 'OPEN', SH: 'READ' }[branch];
    const holding = await cataloguer<Done>('POST', '/holdings', {
      record: made.body.id,
      branch,
      location: place,
      scheme: 'dewey',
      class: '639.1',
      item: 'FEN',
    });
    await cataloguer('POST', '/copies', {
      holding: holding.body.id,
      type: 'BK',
      barcode: barcodeFor(COPY_BARCODES, serial++),
    });
  }
  return detail(made.body.id);
}
const body = (base: RecordDetail, lost: readonly RecordDetail[]) => ({
  base: base.id,
  version: base.version,
  withErrors: true,
  lost: lost.map((l) => l.id),
  marc: lost.reduce((marc, l) => mergeFields(marc, l.marc, DEFAULT_HOUSE), base.marc),
});

test('the demo library has no sure pair but those that are really one, and a new one is found beside the work', async () => {
  const before = await groups();
  expect(before.comparing).toBe(0);
  const a = await add('The pike of Osmere', '9780306406157', ['MR']);
  const b = await add('Pike of Osmere, the', '0-306-40615-2', []);
  const after = await groups();
  expect(after.total).toBe(before.total + 1);
  const found = after.rows.find((g) => g.records.some((r) => r.id === a.id))!;
  expect(found.records.map((r) => [r.id, r.copies, r.branches])).toEqual([
    [a.id, 1, ['MR']],
    [b.id, 0, []],
  ]);
  expect(found.pairs).toEqual([
    expect.objectContaining({
      a: a.id,
      b: b.id,
      why: expect.stringContaining('ISBN 9780306406157') as string,
    }),
  ]);
  const apart = await cataloguer<Done>('POST', '/records/apart', {
    a: b.id,
    b: a.id,
    reason: 'a reprint with other maps',
  });
  expect(apart.body.sentence).toContain('as two titles: a reprint with other maps');
  expect((await groups()).total).toBe(before.total);
  expect((await cataloguer('POST', '/records/apart', { a: a.id, b: b.id })).status).toBe(422);
  // Undone, they are look-alikes again.
  await cataloguer('POST', `/daybook/${apart.body.entry}/undo`);
  expect((await groups()).total).toBe(before.total + 1);
});

test('records are merged: copies move and are numbered on, the old number leads to the new, all is undone at once', async () => {
  const base = await add(
    'The tench of Osmere',
    '9780140449136',
    ['MR'],
    [field('520', '  ', 'a', 'On tench.')],
  );
  const other = await add(
    'The tench of Osmere',
    '0140449132',
    ['MR', 'SH'],
    [field('500', '  ', 'a', 'Index.')],
  );
  const pile = await cataloguer<Done>('POST', '/piles', { name: 'Fish', of: 'record' });
  await cataloguer('POST', `/piles/${pile.body.id}/add`, { codes: [`r${other.id}`] });
  await settled();
  const before = await catalogueOf(t.running);
  const merge = body(base, [other]);
  const review = (await cataloguer<Review>('POST', '/records/merge/review', merge)).body;
  expect(review).toMatchObject({
    verb: 'Merge',
    count: 2,
    sentence: '1 record will be merged into “The tench of Osmere”.',
    consequences: [
      `2 copies with their holdings will hang on record ${base.id}.`,
      '2 copies will get another copy number; barcodes stay.',
    ],
  });
  const done = await cataloguer<Done>('POST', '/records/merge', { ...merge, token: review.token });
  expect([done.status, done.body.sentence]).toEqual([
    200,
    'Merged 1 record into “The tench of Osmere”: 2 copies moved',
  ]);
  const kept = await detail(base.id);
  expect(kept.marc.fields.map((f) => f.tag)).toEqual(expect.arrayContaining(['500', '520']));
  expect(kept.holdings.map((h) => [h.holding.branch, h.copies.map((c) => c.copy.number)])).toEqual([
    ['MR', [1, 2]],
    ['SH', [3]],
  ]);
  // The old number leads on, in the address, in a search and in the scan line.
  expect((await detail(other.id)).id).toBe(base.id);
  expect((await cataloguer<LookUp>('GET', `/look-up?q=r${other.id}`)).body).toMatchObject({
    as: 'record',
    id: base.id,
  });
  expect(
    (await cataloguer<SearchAnswer>('GET', `/records?q=record%20${other.id}`)).body.rows.map((r) => r.id),
  ).toEqual([base.id]);
  const barcode = other.holdings[0]!.copies[0]!.copy.barcode;
  expect((await cataloguer<LookUp>('GET', `/look-up?q=${barcode}`)).body).toMatchObject({
    as: 'record',
    id: base.id,
  });
  expect((await groups()).rows.filter((g) => g.records.some((r) => r.id === base.id))).toEqual([]);
  expect((await cataloguer('POST', `/daybook/${done.body.entry}/undo`)).status).toBe(200);
  await settled();
  expect(await catalogueOf(t.running)).toEqual(before);
  expect((await detail(other.id)).id).toBe(other.id);
});

test('a hundred records are merged and undone, one after the other and back', async () => {
  const { store } = t.running.services;
  const ids = (await store.find('record', { order: [['id', 'ASC']], limit: 200 })).map((r) => r.id);
  await settled();
  const before = await catalogueOf(t.running);
  const entries: number[] = [];
  for (let i = 0; i < 200; i += 2) {
    const [base, lost] = [await detail(ids[i]!), await detail(ids[i + 1]!)];
    const done = await cataloguer<Done>('POST', '/records/merge', body(base, [lost]));
    expect(done.status).toBe(200);
    entries.push(done.body.entry);
  }
  for (const entry of entries.reverse())
    expect((await cataloguer('POST', `/daybook/${entry}/undo`)).status).toBe(200);
  await settled();
  expect(await catalogueOf(t.running)).toEqual(before);
}, 120_000);

test('what was changed since the review is told, and nothing is merged; nonsense is refused', async () => {
  const a = await add('The rudd of Osmere', '9780199535569', ['MR']);
  const b = await add('The rudd of Osmere', '9780199535569', []);
  const merge = body(a, [b]);
  const review = (await cataloguer<Review>('POST', '/records/merge/review', merge)).body;
  await cataloguer('PUT', `/records/${b.id}`, {
    version: b.version,
    marc: withField(b.marc, field('500', '  ', 'a', 'New.')),
    withErrors: true,
  });
  expect((await cataloguer('POST', '/records/merge', { ...merge, token: review.token })).status).toBe(409);
  expect((await cataloguer('POST', '/records/merge', { ...merge, lost: [a.id] })).status).toBe(422);
  expect((await cataloguer('POST', '/records/merge', { ...merge, lost: [999_999] })).status).toBe(404);
  const none = await cataloguer<Problem>('POST', '/records/merge', { ...merge, lost: [] });
  expect(none.body.fields).toEqual([{ field: 'lost', message: 'Choose what is merged into the record.' }]);
  const assistant = await t.as(3);
  expect((await assistant('POST', '/records/merge', merge)).status).toBe(403);
});
