// Deliveries put together by hand, so that every count can be added up by hand too.
import type {
  DeliverySummary,
  IncomingDetail,
  IncomingPage,
  JobState,
  Problem,
  Review,
  SetUp,
} from '@osier/contract';
import { DEFAULT_SETTINGS } from '@osier/core/deliveries';
import {
  encodeUtf8,
  field,
  marcJson,
  marcXmlElement,
  writeIso2709,
  type Field,
  type MarcRecord,
} from '@osier/core/marc';
import { catalogueOf, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
beforeAll(async () => {
  t = await startTesting();
  cataloguer = await t.as(2);
});
afterAll(() => t.stop());

const book = (n: number, ...more: Field[]): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [
    { tag: '001', value: `nf${n}` },
    { tag: '003', value: 'NorthFen' },
    { tag: '008', value: '240101s2019    enka          000 0 eng d' },
    field('082', '04', 'a', '746.41'),
    field('245', '00', 'a', `Fen notebook number ${n} /`, 'c', 'by hand.'),
    field('264', ' 1', 'a', 'Osmere :', 'b', 'Reed Press,', 'c', '2019.'),
    field('300', '  ', 'a', `${100 + n} pages ;`, 'c', '22 cm'),
    ...more,
  ],
});
const deliver = async (name: string, content: Uint8Array) => {
  const { body } = await cataloguer<{ delivery: number; job: number }>(
    'POST',
    `/deliveries?name=${name}`,
    content,
  );
  const job = await t.jobDone(cataloguer, body.job);
  return { id: body.delivery, job };
};
const isoOf = (records: readonly MarcRecord[]) =>
  new Uint8Array(Buffer.concat(records.map((r) => writeIso2709(r))));
const rowsOf = async (id: number) =>
  (await cataloguer<IncomingPage>('GET', `/deliveries/${id}/incoming?limit=500`)).body.rows;
const summaryOf = async (id: number) =>
  (await cataloguer<DeliverySummary>('GET', `/deliveries/${id}/summary`)).body;
const decide = (id: number, incoming: number[], decision: string, more: object = {}) =>
  cataloguer<Problem>('POST', `/deliveries/${id}/decisions`, { incoming, decision, ...more });
const doAndWait = async (path: string, body: object) =>
  t.jobDone(cataloguer, (await cataloguer<JobState>('POST', path, body)).body.id);
/** A record of the demo library that has an ISBN in 13 digits. */
const held = async (at: number) => {
  const found = await t.running.services.store.rows<{ id: number; value: string }>(
    "SELECT id, value FROM records WHERE isbn LIKE '978%' ORDER BY id LIMIT 1 OFFSET :at",
    { at },
  );
  const marc = JSON.parse(found[0]!.value) as MarcRecord;
  return { id: found[0]!.id, marc };
};
const asSent = (
  { marc }: { marc: MarcRecord },
  n: number,
  change: (f: Field) => Field = (f) => f,
): MarcRecord => ({
  ...marc,
  fields: [
    { tag: '001', value: `nf${n}` },
    { tag: '003', value: 'NorthFen' },
    ...marc.fields.filter((f) => !['001', '003'].includes(f.tag)).map(change),
  ],
});
const retitled = (text: string) => (f: Field) =>
  f.tag === '245' && 'subfields' in f ? field('245', '00', 'a', `${text} /`, 'c', 'someone else.') : f;

test('what is held, what only seems to be, and what comes twice', async () => {
  const [one, two, three] = [await held(100), await held(101), await held(102)];
  const { id } = await deliver(
    'by-hand.mrc',
    isoOf([
      asSent(one, 1),
      asSent(two, 2, retitled('Thermodynamics of steam')),
      asSent(three, 3, (f) => (f.tag === '300' ? field('300', '  ', 'a', '1 online resource (9 pages)') : f)),
      book(4, field('020', '  ', 'a', '9780306406157')),
      book(4, field('020', '  ', 'a', '0306406152')),
      book(5),
    ]),
  );
  const rows = (await rowsOf(id)).toSorted((a, b) => a.seq - b.seq);
  const best = (seq: number) => rows[seq - 1]!.matches[0];
  expect(best(1)).toMatchObject({ record: one.id, sure: true, doubts: [] });
  expect(best(2)).toMatchObject({
    record: two.id,
    sure: false,
    doubts: [expect.stringMatching(/title is not/)],
  });
  expect(best(3)).toMatchObject({ record: three.id, sure: false, doubts: [expect.stringMatching(/e-book/)] });
  expect(rows.map((r) => [r.seq, r.decision, r.repeats])).toEqual([
    [1, 'ask', null],
    [2, 'ask', null],
    [3, 'ask', null],
    [4, 'add', null],
    [5, 'ask', 4],
    [6, 'add', null],
  ]);
  expect((await summaryOf(id)).waiting).toEqual({ add: 2, replace: 0, merge: 0, copies: 0, skip: 0, ask: 4 });
});

test('counts by hand, outcome by outcome, and the store as it was after taking back', async () => {
  const before = await catalogueOf(t.running);
  const [one, two, three] = [await held(110), await held(111), await held(112)];
  const { id } = await deliver(
    'outcomes.mrc',
    isoOf([
      asSent(one, 1, retitled('Another title')),
      asSent(two, 2),
      asSent(three, 3),
      book(60),
      book(61),
      book(62),
      book(63),
    ]),
  );
  const at = (await rowsOf(id)).toSorted((a, b) => a.seq - b.seq).map((r) => r.id);
  await decide(id, [at[0]!], 'replace', { target: one.id });
  await decide(id, [at[1]!], 'merge', { target: two.id });
  await decide(id, [at[2]!], 'skip');
  await decide(id, [at[6]!], 'ask');
  const review = (await cataloguer<Review>('POST', `/deliveries/${id}/accept/review`, {})).body;
  expect(review.count).toBe(5);
  expect([review.verb, review.count, review.noun.many]).toEqual(['Accept', 5, 'records']);
  expect(await doAndWait(`/deliveries/${id}/accept`, {})).toMatchObject({
    state: 'done',
    message: expect.stringMatching(/1 record still waits for a decision\.$/) as string,
  });
  expect(await summaryOf(id)).toMatchObject({
    read: 7,
    waiting: { ask: 1 },
    done: { added: 3, replaced: 1, merged: 1, copiesOnly: 0, skipped: 1 },
  });
  const now = await catalogueOf(t.running);
  expect(now.records!.length).toBe(before.records!.length + 3);
  const replaced = await t.running.services.store.read('record', one.id);
  expect(replaced!.value.fields).toContainEqual(
    field('245', '00', 'a', 'Another title /', 'c', 'someone else.'),
  );
  expect((await t.running.services.store.read('record', two.id))!.value).toEqual(two.marc);
  expect((await doAndWait(`/deliveries/${id}/take-back`, {})).message).toMatch(
    /^Undid the accepting of 6 records/,
  );
  expect(await catalogueOf(t.running)).toEqual(before);
  expect((await summaryOf(id)).done).toEqual({ added: 0, replaced: 0, merged: 0, copiesOnly: 0, skipped: 0 });
});

test('450 records: reviewed page after page, two of a further page left out, accepted, taken back', async () => {
  const before = await catalogueOf(t.running);
  const { id } = await deliver(
    'many.json',
    encodeUtf8(Array.from({ length: 450 }, (_, i) => `${marcJson(book(1000 + i))}\n`).join('')),
  );
  const seen: Review['rows'][number][] = [];
  for (let more = -1; more !== 0;) {
    const { body } = await cataloguer<Review>('POST', `/deliveries/${id}/accept/review`, {
      from: seen.length,
    });
    expect(body.count).toBe(450);
    seen.push(...body.rows);
    more = body.more;
    expect(more).toBe(450 - seen.length);
  }
  expect(new Set(seen.map((r) => r.id)).size).toBe(450);
  const leaveOut = [seen[300]!.id, seen[449]!.id];
  expect((await doAndWait(`/deliveries/${id}/accept`, { leaveOut })).state).toBe('done');
  expect(await summaryOf(id)).toMatchObject({ waiting: { add: 2 }, done: { added: 448 } });
  const back = (await cataloguer<Review>('POST', `/deliveries/${id}/take-back/review`, { from: 400 })).body;
  expect([back.count, back.rows.length, back.more]).toEqual([448, 48, 0]);
  await doAndWait(`/deliveries/${id}/take-back`, {});
  expect(await catalogueOf(t.running)).toEqual(before);
});

test.each<[string, string, () => Uint8Array, number, number]>([
  [
    'MARCXML without a namespace',
    'a.xml',
    () => encodeUtf8(`<collection>${[1, 2].map((n) => marcXmlElement(book(n))).join('')}</collection>`),
    2,
    0,
  ],
  [
    'an answer of SRU',
    'b.xml',
    () =>
      encodeUtf8(
        `<records>${[1, 2].map((n) => `<record><recordData>${marcXmlElement(book(n))}</recordData></record>`).join('')}</records>`,
      ),
    2,
    0,
  ],
  [
    'an array of JSON',
    'c.json',
    () => encodeUtf8(`[${[1, 2, 3].map((n) => marcJson(book(n))).join(',')}]`),
    3,
    0,
  ],
  [
    'MARC-8',
    'd.mrc',
    () => writeIso2709(book(1, field('500', '  ', 'a', 'Łódź, café, Книга.')), 'marc8'),
    1,
    0,
  ],
  ['a file that breaks off', 'e.mrc', () => isoOf([book(1), book(2)]).slice(0, -60), 2, 1],
])('%s is taken in', async (_, name, content, records, repaired) => {
  const { id, job } = await deliver(name, content());
  expect(job.state).toBe('done');
  const [row] = (
    await cataloguer<{ id: number; records: number; repaired: number }[]>('GET', '/deliveries')
  ).body.filter((d) => d.id === id);
  expect(row).toMatchObject({ records, repaired });
});

test.each<[string, string, Uint8Array, RegExp]>([
  ['nothing', 'empty.mrc', new Uint8Array(0), /empty/],
  ['a letter', 'letter.mrc', encodeUtf8('Dear colleagues, the files are on their way.'), /plain text/],
  ['a PDF', 'invoice.mrc', encodeUtf8('%PDF-1.7 …'), /PDF/],
  ['a table', 'list.mrc', encodeUtf8('title,author\nEels,Reedman\n'), /table/],
  ['a web page', 'page.mrc', encodeUtf8('<!doctype html><html></html>'), /web page/],
])('%s is refused with what it looks like, and nothing is kept', async (_, name, content, said) => {
  const count = async () => (await cataloguer<unknown[]>('GET', '/deliveries')).body.length;
  const before = await count();
  const { status, body } = await cataloguer<Problem>('POST', `/deliveries?name=${name}`, content);
  expect(status).toBe(415);
  expect(body.detail).toMatch(said);
  expect(await count()).toBe(before);
});

test.each<[string, object, RegExp]>([
  ['a decision that there is not', { decision: 'burn' }, /./],
  ['a record that is not in the delivery', { decision: 'add', incoming: [999_999] }, /./],
  ['a target that is not there', { decision: 'replace', target: 999_999 }, /999999|999,999/],
])('%s is refused', async (_, change, said) => {
  const { id } = await deliver(`odd-${JSON.stringify(change).length}.mrc`, isoOf([book(900)]));
  const [row] = await rowsOf(id);
  const { status, body } = await cataloguer<Problem>('POST', `/deliveries/${id}/decisions`, {
    incoming: [row!.id],
    ...change,
  });
  expect(status).toBeGreaterThanOrEqual(400);
  expect(status).toBeLessThan(500);
  expect(body.detail).toMatch(said);
  expect((await rowsOf(id))[0]).toMatchObject({ decision: 'add', target: null });
});

test('what a chunk makes counts for the next, which is planned before that is written', async () => {
  // 700 records are four chunks. Everybody has the same new author and the next label; at the ends of chunks records are merged into one held record.
  const author = field('100', '1 ', 'a', 'Chunkley, Ada,', 'e', 'author.');
  const records = Array.from({ length: 700 }, (_, i) =>
    book(
      20_000 + i,
      author,
      field('650', ' 4', 'a', `Fen subject ${Math.floor(i / 150)}`),
      field('949', '  ', 'b', 'MR', 'l', 'OPEN'),
    ),
  );
  const { id } = await deliver('chunks.mrc', isoOf(records));
  const { version } = await summaryOf(id);
  const settings = {
    ...DEFAULT_SETTINGS,
    mapping: { tag: '949', subfields: { branch: 'b', location: 'l' }, tables: {} },
    defaults: { ...DEFAULT_SETTINGS.defaults, type: 'BK' },
    roll: 1,
  };
  const set = await cataloguer<JobState>('PUT', `/deliveries/${id}/settings`, {
    version,
    sheet: null,
    settings,
  });
  await t.jobDone(cataloguer, set.body.id);
  const { store } = t.running.services;
  const all = await store.rows<{ id: number }>('SELECT id FROM incoming WHERE delivery = :id ORDER BY seq', {
    id,
  });
  expect(all.length).toBe(700);
  const merged = [198, 199, 200, 201, 399, 400, 650].map((i) => all[i]!.id);
  expect((await decide(id, merged, 'merge', { target: 3 })).status).toBe(200);
  const before = await catalogueOf(t.running);
  const was = (await store.read('record', 3))!;

  const job = await cataloguer<JobState>('POST', `/deliveries/${id}/accept`, {});
  const ended = await t.jobDone(cataloguer, job.body.id);
  expect([ended.state, ended.message]).toEqual([
    'done',
    expect.stringContaining('693 new, 7 merged, 700 copies, 6 new headings'),
  ]);
  const after = await catalogueOf(t.running);
  expect(after.records!.length - before.records!.length).toBe(693);
  expect(after.copies!.length - before.copies!.length).toBe(700);
  // One author and five subjects, each once; labels in the order of the file, each once.
  const words =
    "SELECT text FROM headings WHERE text LIKE 'Chunkley%' OR text LIKE 'Fen subject%' ORDER BY 1";
  expect((await store.rows<{ text: string }>(words)).length).toBe(6);
  const labels = await store.rows<{ barcode: string; seq: number }>(
    `SELECT c.barcode, i.seq FROM incoming i JOIN holdings h ON h.record = i.record JOIN copies c ON c.holding = h.id
      WHERE i.delivery = :id AND i.record <> 3 ORDER BY i.seq`,
    { id },
  );
  expect(labels.length).toBe(693);
  expect(labels.map((l) => l.barcode)).toEqual(labels.map((l) => l.barcode).toSorted());
  expect(new Set(labels.map((l) => l.barcode)).size).toBe(693);
  // Each of the four chunks merges into it once, on what the one before has made of it.
  expect((await store.read('record', 3))!.version - was.version).toBe(4);
});

test('a sheet whose location was since removed: its copies wait with the reason, and nothing is lost', async () => {
  const head = await t.as(1);
  const listsNow = async () => (await head<SetUp>('GET', '/set-up')).body.lists;
  const before = await listsNow();
  const attic = { code: 'ATTIC', name: 'Attic', branch: 'MR' };
  await head('PUT', '/set-up/lists', {
    ...before.value,
    version: before.version,
    locations: [...before.value.locations, attic],
  });
  const sheet = {
    ...DEFAULT_SETTINGS,
    name: 'North Fen',
    files: ['attic*'],
    organisations: [],
    mapping: { ...DEFAULT_SETTINGS.mapping, tag: '' },
    defaults: { ...DEFAULT_SETTINGS.defaults, branch: 'MR', location: 'ATTIC', type: 'BK', copies: 1 },
    roll: 1,
  };
  expect((await head('POST', '/supplier-sheets', { sheet })).status).toBe(200);
  const { version } = await listsNow();
  expect((await head('PUT', '/set-up/lists', { ...before.value, version })).status).toBe(200);

  const { id, job } = await deliver('attic-1.mrc', isoOf([book(701), book(702)]));
  expect(job.state).toBe('done');
  const rows = await rowsOf(id);
  expect(rows.map((r) => [r.copies, r.copyProblems])).toEqual([
    [1, 1],
    [1, 1],
  ]);
  const detail = (await cataloguer<IncomingDetail>('GET', `/deliveries/${id}/incoming/${rows[0]!.id}`)).body;
  expect(detail.proposedCopies[0]!.problems.join()).toMatch(/“ATTIC” is not a location here\. Nearest: /);
  expect((await doAndWait(`/deliveries/${id}/accept`, {})).message).toMatch(
    /2 records stayed in the delivery/,
  );
  expect(await summaryOf(id)).toMatchObject({ waiting: { add: 2 }, done: { added: 0 } });

  // Corrected at the copy, the record can go.
  const open = { ...detail.proposedCopies[0]!, location: 'OPEN' };
  const { problems: _, ...copy } = open;
  const path = `/deliveries/${id}/incoming/${rows[0]!.id}`;
  expect((await cataloguer('PUT', path, { version: detail.version, copies: [copy] })).status).toBe(200);
  await doAndWait(`/deliveries/${id}/accept`, {});
  expect(await summaryOf(id)).toMatchObject({ waiting: { add: 1 }, done: { added: 1 }, copies: { made: 1 } });
});
