import type { BrowsePage, HeadingDetail, MergedAnswer, RecordDetail, Review } from '@osier/contract';
import { creation, removal } from '@osier/core/changes';
import { formsOfMerge, headingFrom, headingsOf, headingText } from '@osier/core/headings';
import { field, type DataField, type MarcRecord } from '@osier/core/marc';
import { OSIER } from '../jobs/jobs';
import { commit } from '../store/commit';
import { catalogueOf, startTesting, type Ask } from '../testing/running';
import { TESTED } from '../testing/tested';
import { headingsAlong } from './change-records';
import { beginMakingHeadings } from './make-headings';

let t: Awaited<ReturnType<typeof startTesting>>;
let ask: Ask;
beforeAll(async () => {
  t = await startTesting();
  ask = await t.as(2);
});
afterAll(() => t.stop());

const heading = async (id: number) => (await ask<HeadingDetail>('GET', `/headings/${id}`)).body;
const record = async (id: number) => (await ask<RecordDetail>('GET', `/records/${id}`)).body;
const browsed = async (list: string, from: string) =>
  (await ask<BrowsePage>('GET', `/browse/${list}?${new URLSearchParams({ from })}`)).body.rows;

/** Records with these fields, with the headings that they carry; gives the numbers of both. */
async function added(all: readonly (readonly DataField[])[], withHeadings = true) {
  const { store } = t.running.services;
  const marcs = all.map((fields, i): MarcRecord => ({
    leader: '00000nam a2200000 i 4500',
    fields: [...fields, field('245', '10', 'a', `A book of sluices, part ${i}`)],
  }));
  const uses = new Map(marcs.flatMap(headingsOf).map((u) => [`${u.kind} ${u.key}`, u]));
  const [from, first] = [
    await store.nextIds('record', marcs.length),
    await store.nextIds('heading', uses.size),
  ];
  const headings = [...uses.values()].map((u, i) => creation('heading', first + i, headingFrom(u)));
  const records = marcs.map((marc, i) => creation('record', from + i, marc));
  await commit(store, { did: TESTED, person: 1, changes: [...records, ...(withHeadings ? headings : [])] });
  return {
    records: records.map((r) => r.id),
    at: (key: string) =>
      headings.find((h) => h.after?.kind !== undefined && [...uses.keys()][h.id - first] === key)!.id,
  };
}
const person = (...more: string[]) => field('700', '12', 'a', ...more);

test('titles, names with titles, periods and genres are headings that are browsed and lead to their records', async () => {
  const { records } = await added([
    [
      field('130', '0 ', 'a', 'Zymurgy of reeds.'),
      field('648', ' 7', 'a', 'Zeroth century', '2', 'fast'),
      field('655', ' 7', 'a', 'Zines.', '2', 'lcgft'),
      person('Zephyr, Ada,', 'd', '1900-1980.', 't', 'Weirs.'),
      field('830', ' 0', 'a', 'Zone papers ;', 'v', '3'),
    ],
  ]);
  const known = (await record(records[0]!)).headings.map((h) => `${h.kind} ${h.key}`);
  expect(known.sort()).toEqual([
    'genre lcgft ZINES',
    'name-title naf ZEPHYR, ADA$d1900 1980$tWEIRS',
    'period fast ZEROTH CENTURY',
    'personal naf ZEPHYR, ADA$d1900 1980',
    'title naf ZONE PAPERS',
    'title naf ZYMURGY OF REEDS',
  ]);
  for (const [list, from, text] of [
    ['titleheading', 'zephyr', 'Zephyr, Ada, 1900-1980. Weirs'],
    ['titleheading', 'zymurgy', 'Zymurgy of reeds'],
    ['genre', 'zines', 'Zines'],
    ['subject', 'zeroth', 'Zeroth century'],
  ] as const)
    expect((await browsed(list, from))[0]).toMatchObject({ text, n: 1, to: { as: 'heading' } });
});

test('when a name is merged, the headings of its works and records with them follow; one undo brings all back', async () => {
  const { at, records } = await added([
    [person('Sedge, A.', 't', 'Weirs.')],
    [person('Sedge, A.', 't', 'Locks.'), person('Sedge, Ada,', 'd', '1900-1980.', 't', 'Weirs.')],
  ]);
  const before = await catalogueOf(t.running);
  const [kept, lost] = [at('personal SEDGE, ADA$d1900 1980'), at('personal SEDGE, A')];
  const asked = { kept, lost: [lost] };
  const review = (await ask<Review>('POST', '/headings/merge/review', asked)).body;
  expect(review.consequences).toContain(
    'Headings that go on behind it with a title or subdivisions get the kept form too (3 authority records).',
  );
  expect(review.rows.filter((r) => /goes on behind it/.test(r.detail))).toHaveLength(3);
  const done = await ask<MergedAnswer>('POST', '/headings/merge', { ...asked, token: review.token });
  expect(done.status).toBe(200);
  expect(await heading(at('name-title SEDGE, A$tLOCKS'))).toMatchObject({
    text: 'Sedge, Ada, 1900-1980. Locks',
    records: 1,
  });
  expect((await heading(at('name-title SEDGE, A$tWEIRS'))).mergedInto).toBe(
    at('name-title SEDGE, ADA$d1900 1980$tWEIRS'),
  );
  expect((await record(records[0]!)).marc.fields[0]).toEqual(
    person('Sedge, Ada,', 'd', '1900-1980.', 't', 'Weirs.'),
  );
  expect((await ask('POST', `/daybook/${done.body.entry}/undo`)).status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('one that begins with the lost forms of two merges follows once', async () => {
  const topic = (...more: string[]) => field('650', ' 0', 'a', ...more);
  const { at } = await added([
    [topic('Tramways.'), topic('Tramways', 'z', 'Wick.'), topic('Tramways', 'z', 'Wick', 'x', 'History.')],
    [topic('Trams.'), topic('Light rail', 'z', 'Wick.')],
  ]);
  const { store } = t.running.services;
  const forms = async (kept: string, lost: string) => {
    const held = await store.readMany('heading', [at(`topic ${kept}`), at(`topic ${lost}`)]);
    const [k, l] = [at(`topic ${kept}`), at(`topic ${lost}`)].map((id) => held.find((h) => h.id === id)!);
    return formsOfMerge({ kept: k!, lost: [l!] });
  };
  const merges = [await forms('TRAMS', 'TRAMWAYS'), await forms('LIGHT RAIL$zWICK', 'TRAMWAYS$zWICK')];
  const changes = await headingsAlong(store, merges, []);
  const history = changes.filter((c) => c.id === at('topic TRAMWAYS$zWICK$xHISTORY'));
  expect(history.map((c) => c.after && headingText(c.after))).toEqual(['Trams — Wick — History']);
});

test('two works of one name are merged, a work with a uniform title is not', async () => {
  const { at, records } = await added([
    [person('Osmund, B.', 't', 'Tolls.')],
    [person('Osmund, B.', 't', 'The tolls.')],
    [field('730', '0 ', 'a', 'Tolls of Osmund.')],
  ]);
  const [kept, lost] = [at('name-title OSMUND, B$tTHE TOLLS'), at('name-title OSMUND, B$tTOLLS')];
  const mixed = await ask('POST', '/headings/merge', { kept, lost: [at('title TOLLS OF OSMUND')] });
  expect(mixed.status).toBe(422);
  expect((await ask('POST', '/headings/merge', { kept, lost: [lost] })).status).toBe(200);
  expect((await record(records[0]!)).marc.fields[0]).toEqual(person('Osmund, B.', 't', 'The tolls.'));
});

test('a name-title is made by hand from a name with its title', async () => {
  const body = {
    kind: 'personal',
    form: 'Inkpen, Cora.$tLedgers',
    seeFroms: ['$aInkpen, C.$tLedgers'],
    source: 'Ledgers, 1920',
  };
  const made = await ask<{ id: number }>('POST', '/headings', body);
  expect(made.status).toBe(201);
  expect(await heading(made.body.id)).toMatchObject({
    kind: 'name-title',
    text: 'Inkpen, Cora. Ledgers',
    seeFrom: ['Inkpen, C. Ledgers'],
  });
  const genre = await ask<{ id: number }>('POST', '/headings', {
    ...{ kind: 'genre', vocabulary: 'lcgft', form: 'Almanacs of tides', source: 'A list, 1999' },
  });
  expect(await heading(genre.body.id)).toMatchObject({ kind: 'genre', vocabulary: 'lcgft' });
});

test('what records carry and no heading knows becomes a heading by a job, once, and stays while it is carried', async () => {
  const { services } = t.running;
  const head = await t.as(1);
  await added([[field('655', ' 7', 'a', 'Tide songs', '2', 'lcgft')]]);
  const all = (await services.store.find('heading', {})).filter((h) => h.value.kind === 'genre');
  const gone = all.slice(0, 2);
  await commit(services.store, { did: TESTED, person: 1, changes: gone.map((h) => removal('heading', h)) });
  await added([[field('655', ' 7', 'a', 'Tide tables of Wick', '2', 'lcgft')]], false);
  const done = async () => {
    await beginMakingHeadings(services);
    const job = services.jobs.running().find((j) => j.kind === 'make-headings')!;
    return t.jobDone(head, job.id);
  };
  const carried = new Set(
    (await services.store.find('record', {})).flatMap(({ value }) =>
      headingsOf(value).map((u) => `${u.kind} ${u.vocabulary} ${u.key}`),
    ),
  );
  const missing = async () => {
    const known = await services.store.rows<{ k: string }>(
      "SELECT kind || ' ' || vocabulary || ' ' || key AS k FROM headings",
    );
    return carried.size - known.filter((h) => carried.has(h.k)).length;
  };
  const n = await missing();
  expect(n).toBeGreaterThanOrEqual(gone.length + 1);
  const { state, message } = await done();
  expect(state).toBe('done');
  expect(message).toMatch(`Made ${n} headings that records carry`);
  expect(await missing()).toBe(0);
  const entry = (await services.store.table('daybook').find({ order: [['id', 'DESC']], limit: 1 }))[0]!;
  expect(entry.person).toBe(OSIER);
  expect(await done()).toMatchObject({ message: 'Made 0 headings that records carry.' });
  // Undoing takes back what no record carries: here all are carried, and stay.
  expect((await head('POST', `/daybook/${entry.id}/undo`)).status).toBe(422);
  expect(await missing()).toBe(0);
});
