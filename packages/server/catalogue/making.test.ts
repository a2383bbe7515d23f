import { creation, removal } from '@osier/core/changes';
import { commit } from '../store/commit';
import type { AlikeRow, Problem, RecordDetail, VersionRow, SearchAnswer } from '@osier/contract';
import { barcodeFor } from '@osier/core/barcodes';
import { COPY_BARCODES } from '../../../demo/barcodes';
import { begunRecord, isBriefRecord, STARTERS } from '@osier/core/editing';
import { field, withField, type MarcRecord } from '@osier/core/marc';
import { catalogueOf, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
let assistant: Ask;
beforeAll(async () => {
  t = await startTesting();
  [cataloguer, assistant] = [await t.as(2), await t.as(3)];
});
afterAll(() => t.stop());
const detail = async (id: number) => (await cataloguer<RecordDetail>('GET', `/records/${id}`)).body;
const barcode = (serial: number) => barcodeFor(COPY_BARCODES, serial);
const fieldsOf = (problem: Problem) => problem.fields?.map((f) => `${f.field}: ${f.message}`);
interface Made {
  readonly id: number;
  readonly entry: number;
  readonly sentence: string;
}

/** The first record from a number on that has an ISBN. */
async function withIsbn(from: number): Promise<RecordDetail> {
  for (let id = from; ; id++) {
    const found = await detail(id);
    if (found.brief.isbn) return found;
  }
}

const filled = (title: string): MarcRecord =>
  [
    field('245', '10', 'a', `${title} /`, 'c', 'Hob Fen.'),
    field('264', ' 1', 'a', 'Osmere :', 'b', 'Reed and Rush,', 'c', '2024.'),
    field('300', '  ', 'a', '90 pages ;', 'c', '24 cm'),
  ].reduce(withField, begunRecord(STARTERS.book!, '2026-11-28', 'eng'));

test('a record is made from a starter, with a control number, and unmade', async () => {
  const before = await catalogueOf(t.running);
  const marc = withField(
    filled('The eel traps of Osmere'),
    field('100', '1 ', 'a', 'Fenn, Hobart,', 'e', 'author.'),
  );
  const made = await cataloguer<Made>('POST', '/records', { marc });
  expect([made.status, made.body.sentence]).toEqual([201, 'Added “The eel traps of Osmere”']);
  const held = await detail(made.body.id);
  expect(held.marc.fields[0]).toEqual({ tag: '001', value: String(made.body.id) });
  expect(held.headings.map((h) => h.text)).toContain('Fenn, Hobart');
  expect((await cataloguer('POST', `/daybook/${made.body.entry}/undo`)).status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('an assistant makes and deletes nothing; a record without text is none', async () => {
  const marc = filled('Not allowed');
  expect((await assistant('POST', '/records', { marc })).status).toBe(403);
  expect((await assistant('POST', '/records/9/remove', { version: 1 })).status).toBe(403);
  const empty = await cataloguer<Problem>('POST', '/records', {
    marc: { leader: marc.leader, fields: marc.fields.filter((f) => f.tag.startsWith('00')) },
  });
  expect([empty.status, fieldsOf(empty.body)]).toEqual([422, ['marc: The record has no text yet.']]);
});

test('a record that the catalogue may hold is told, and added only when that was seen', async () => {
  const known = await withIsbn(21);
  const marc = { ...known.marc, fields: known.marc.fields.filter((f) => !/^(001|003|852|876)$/.test(f.tag)) };
  const { rows } = (await cataloguer<{ rows: AlikeRow[] }>('POST', '/records/likely', { marc })).body;
  expect(rows[0]).toMatchObject({ record: known.id, title: known.brief.title, sure: true });
  expect(rows[0]!.copies).toBe(known.holdings.flatMap((h) => h.copies).length);
  expect(rows[0]!.branches).toEqual([...new Set(known.holdings.map((h) => h.holding.branch))].sort());
  const refused = await cataloguer<Problem>('POST', '/records', { marc, withErrors: true });
  expect([refused.status, refused.body.detail]).toEqual([
    409,
    expect.stringContaining(`(record ${known.id})`),
  ]);
  const made = await cataloguer<Made>('POST', '/records', {
    marc,
    withErrors: true,
    despite: rows.map((r) => r.record),
  });
  expect(made.status).toBe(201);
  expect(made.body.sentence).toMatch(/, although \d+ records? looks? like it$/);
  await cataloguer('POST', `/daybook/${made.body.entry}/undo`);
});

test('errors are saved only on purpose, and the daybook says so', async () => {
  const marc = withField(filled('The weirs of Osmere'), field('245', '10', 'a', 'A second title.'));
  const refused = await cataloguer<Problem>('POST', '/records', { marc });
  expect([refused.status, fieldsOf(refused.body)?.[0]]).toEqual([
    422,
    expect.stringMatching(/^withErrors: The record has 1 error: .*245/),
  ]);
  const made = await cataloguer<Made>('POST', '/records', { marc, withErrors: true });
  expect(made.body.sentence).toBe('Added “The weirs of Osmere”, with 1 error');
  const held = await detail(made.body.id);
  const save = (body: object) =>
    cataloguer<Problem & Made>('PUT', `/records/${held.id}`, { version: 1, marc: held.marc, ...body });
  const changed = withField(held.marc, field('500', '  ', 'a', 'A note.'));
  expect((await save({ marc: changed })).status).toBe(422);
  expect((await save({ marc: changed, withErrors: true })).body.sentence).toBe(
    'Edited “The weirs of Osmere”: 500, with 1 error',
  );
});

const brief = {
  title: 'The sluice book',
  name: 'Fen, Hob',
  class: '627.1234',
  branch: 'MR',
  location: 'OPEN',
  type: 'BK',
};

test('a brief record makes record, holding and copy in one entry', async () => {
  const before = await catalogueOf(t.running);
  const made = await cataloguer<Made>('POST', '/records/brief', {
    ...brief,
    isbn: '0-306-40615-2',
    year: '2024',
    barcode: barcode(77_100_001),
    status: 'in process',
  });
  expect([made.status, made.body.sentence]).toEqual([
    201,
    `Added the brief record “The sluice book” with copy 3 1204 77100001 ${barcode(77_100_001).at(-1)}, Open shelves`,
  ]);
  const held = await detail(made.body.id);
  expect(isBriefRecord(held.marc)).toBe(true);
  expect(held.brief).toMatchObject({
    title: 'The sluice book',
    author: 'Fen, Hob',
    isbn: '9780306406157',
    year: '2024',
  });
  expect(held.holdings).toMatchObject([
    {
      callNumber: '627.12 FEN',
      holding: { branch: 'MR', location: 'OPEN' },
      copies: [{ copy: { status: 'in process', number: 1 } }],
    },
  ]);
  expect(held.findings.filter((f) => f.severity === 'error')).toEqual([]);
  // The same book once more: told that it is here.
  const again = await cataloguer<Problem>('POST', '/records/brief', {
    ...brief,
    isbn: '9780306406157',
    barcode: barcode(77_100_002),
  });
  expect([again.status, again.body.detail]).toEqual([
    409,
    expect.stringContaining(`(record ${made.body.id})`),
  ]);
  await cataloguer('POST', `/daybook/${made.body.entry}/undo`);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test.each([
  [{ title: ' ' }, 'title: Type the title.'],
  [{ isbn: '9780306406158' }, 'isbn: This is no ISBN: check its digits.'],
  [{ class: '' }, 'class: Type the class: the call number begins with it.'],
  [{ location: 'READ' }, 'location: “READ” is not a location here.'],
  [{ type: 'bk' }, 'type: “bk” is not a type here. Nearest: BK (Book)'],
  [{ year: '24' }, 'year: A year has four digits.'],
  [{ status: 'lost' }, 'status: Choose a status.'],
  [{ barcode: '31204000500001' }, 'barcode: '],
])('a brief record that is not right is refused at the field (%p)', async (part, said) => {
  const before = await catalogueOf(t.running);
  const refused = await cataloguer<Problem>('POST', '/records/brief', {
    ...brief,
    barcode: barcode(77_100_003),
    ...part,
  });
  expect(refused.status).toBe(422);
  expect(fieldsOf(refused.body)?.join()).toContain(said);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('two scanned at the same moment with one barcode: one brief record is made', async () => {
  const both = await Promise.all(
    ['The first sluice', 'A second weir'].map((title) =>
      cataloguer<Made>('POST', '/records/brief', { ...brief, title, name: '', barcode: barcode(77_100_009) }),
    ),
  );
  expect(both.map((b) => b.status).sort()).toEqual([201, expect.any(Number)]);
  expect(both.filter((b) => b.status === 201)).toHaveLength(1);
});

test('every version of a record is kept: who, when, by which act, and as it was', async () => {
  const made = await cataloguer<Made>('POST', '/records', { marc: filled('The versions of Osmere') });
  const { id } = made.body;
  const first = await detail(id);
  const noted = withField(first.marc, field('500', '  ', 'a', 'A note.'));
  const saved = await cataloguer<Made>('PUT', `/records/${id}`, { version: 1, marc: noted });
  const versions = async (query = '') =>
    (await cataloguer<{ rows: VersionRow[]; next: number | null }>('GET', `/records/${id}/versions${query}`))
      .body;
  expect((await versions()).rows.map((v) => [v.entry, v.sentence])).toEqual([
    [saved.body.entry, 'Edited “The versions of Osmere”: 500'],
    [made.body.entry, 'Added “The versions of Osmere”'],
  ]);
  expect((await versions(`?before=${saved.body.entry}`)).rows.map((v) => v.entry)).toEqual([made.body.entry]);
  const version = async (entry: number) =>
    (await cataloguer<{ marc: MarcRecord }>('GET', `/records/${id}/versions/${entry}`)).body.marc;
  expect(await version(made.body.entry)).toEqual(first.marc);
  expect(await version(saved.body.entry)).toEqual(noted);
  expect((await cataloguer('GET', `/records/${id}/versions/1`)).status).toBe(404);
  // A record of the first filling, whose entry has hundreds of others.
  const old = await detail(700);
  const edited = await cataloguer<Made>('PUT', '/records/700', {
    version: old.version,
    marc: withField(old.marc, field('500', '  ', 'a', 'Another note.')),
    withErrors: true,
  });
  const [, filling] = (await cataloguer<{ rows: VersionRow[] }>('GET', '/records/700/versions')).body.rows;
  expect(
    (await cataloguer<{ marc: MarcRecord }>('GET', `/records/700/versions/${filling!.entry}`)).body.marc,
  ).toEqual(old.marc);
  await cataloguer('POST', `/daybook/${edited.body.entry}/undo`);
});

test('what was done with holdings and copies stands among the versions, also of a copy that is gone', async () => {
  const { id, entry } = (
    await cataloguer<Made>('POST', '/records', { marc: filled('The sluices of Osmere') })
  ).body;
  const place = { branch: 'MR', location: 'OPEN', scheme: 'dewey', class: '627' };
  const holding = (await cataloguer<Made>('POST', '/holdings', { record: id, ...place })).body;
  const copy = { holding: holding.id, barcode: '91209000000001', keepBarcode: true, type: 'BK' };
  const added = (await cataloguer<Made>('POST', '/copies', copy)).body;
  const marked = await cataloguer<Made>('PUT', `/copies/${added.id}`, { version: 1, note: 'Signed' });
  const history = async (query = '') =>
    (await cataloguer<{ rows: VersionRow[]; next: number | null }>('GET', `/records/${id}/versions${query}`))
      .body.rows;
  const all = [marked.body.entry, added.entry, holding.entry, entry];
  expect((await history()).map((v) => [v.entry, v.isVersion])).toEqual(all.map((e) => [e, e === entry]));
  expect((await history(`?before=${added.entry}`)).map((v) => v.entry)).toEqual([holding.entry, entry]);
  const version = (e: number) => cataloguer('GET', `/records/${id}/versions/${e}`);
  expect([(await version(added.entry)).status, (await version(entry)).status]).toEqual([404, 200]);
  // A copy that was withdrawn hangs on nothing any more; the register knows of which title it was.
  const { store } = t.running.services;
  const held = (await store.read('copy', added.id))!;
  const of = { copy: held.value, copyId: held.id, record: id, title: '', branch: 'MR', location: 'OPEN' };
  const row = { ...of, callNumber: '627', withdrawnOn: '2026-11-30', by: '', reason: '', lastCopy: true };
  const gone = await commit(store, {
    did: { act: 'restore', counts: { copies: 1, records: 0 } },
    person: 1,
    changes: [creation('withdrawn', await store.nextIds('withdrawn', 1), row), removal('copy', held)],
  });
  expect((await history()).map((v) => v.entry)).toEqual([gone, ...all]);
});

test('a record without copies is deleted with its holdings, and comes back; one with copies is not', async () => {
  const made = await cataloguer<Made>('POST', '/records', { marc: filled('The drains of Osmere') });
  const { id } = made.body;
  await cataloguer('POST', '/holdings', {
    record: id,
    branch: 'MR',
    location: 'OPEN',
    scheme: 'dewey',
    class: '627',
  });
  const before = await detail(id);
  const gone = await cataloguer<Made>('POST', `/records/${id}/remove`, { version: 1 });
  expect(gone.body.sentence).toBe('Deleted “The drains of Osmere” with 1 holding');
  expect((await cataloguer('GET', `/records/${id}`)).status).toBe(404);
  expect(
    (await cataloguer<{ marc: null }>('GET', `/records/${id}/versions/${gone.body.entry}`)).body.marc,
  ).toBeNull();
  await cataloguer('POST', `/daybook/${gone.body.entry}/undo`);
  const back = await detail(id);
  expect([back.marc, back.holdings.length]).toEqual([before.marc, 1]);
  const refused = await cataloguer<Problem>('POST', '/records/9/remove', { version: 1 });
  expect([refused.status, refused.body.detail]).toEqual([422, expect.stringContaining('Withdraw')]);
  const stale = await cataloguer('POST', `/records/${id}/remove`, { version: 7 });
  expect(stale.status).toBe(409);
});

test('a record is suppressed from the public and shown again; a list has those that are, and undo takes it back', async () => {
  const { id } = (await cataloguer<Made>('POST', '/records', { marc: filled('The locks of Osmere') })).body;
  const suppress = (isSuppressed: boolean) =>
    cataloguer<Made>('POST', `/records/${id}/suppress`, { isSuppressed });
  const hidden = await suppress(true);
  expect(hidden.body.sentence).toBe('Suppressed “The locks of Osmere” from the public');
  expect((await detail(id)).suppressed).toBe(true);
  const list = async () =>
    (await cataloguer<SearchAnswer>('GET', '/records?suppressed=yes')).body.rows.map((r) => r.id);
  expect(await list()).toEqual([id]);
  expect((await suppress(true)).status).toBe(422);
  expect((await cataloguer('POST', '/records/999999/suppress', { isSuppressed: true })).status).toBe(404);
  const shown = await suppress(false);
  expect(shown.body.sentence).toBe('Showed “The locks of Osmere” to the public again');
  expect([(await detail(id)).suppressed, await list()]).toEqual([false, []]);
  await cataloguer('POST', `/daybook/${shown.body.entry}/undo`);
  expect(await list()).toEqual([id]);
});
