import type {
  HeadingDetail,
  HeadingPage,
  JobState,
  LookUp,
  Problem,
  RecordDetail,
  Review,
} from '@osier/contract';
import { creation } from '@osier/core/changes';
import { headingFrom, headingsOf } from '@osier/core/headings';
import { field, writeIso2709, type MarcRecord } from '@osier/core/marc';
import { readFileSync } from 'node:fs';
import { commit } from '../store/commit';
import { TESTED } from '../testing/tested';
import { catalogueOf, demoFile, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
beforeAll(async () => {
  t = await startTesting();
  cataloguer = await t.as(2);
});
afterAll(() => t.stop());

const heading = async (id: number) => (await cataloguer<HeadingDetail>('GET', `/headings/${id}`)).body;
/** Loads a file as a delivery is loaded; gives its digest among the authority files. */
async function loaded(name: string, file: Uint8Array): Promise<string> {
  const { status, body } = await cataloguer<{ delivery: number | null; authorities: string | null }>(
    'POST',
    `/deliveries?name=${name}`,
    file,
  );
  expect([status, body.delivery]).toEqual([202, null]);
  return body.authorities!;
}
async function take(sha256: string, more: object = {}): Promise<JobState> {
  const { status, body } = await cataloguer<JobState>('POST', '/headings/file', {
    sha256,
    name: 'names.mrc',
    ...more,
  });
  expect(status).toBe(202);
  return t.jobDone(cataloguer, body.id);
}
const authority = (number: string, fields: MarcRecord['fields'], leader = '00000nz  a2200000n  4500') =>
  writeIso2709({
    leader,
    fields: [{ tag: '001', value: number }, { tag: '003', value: 'WickReg' }, ...fields],
  });
const joined = (...parts: Uint8Array[]) => new Uint8Array(Buffer.concat(parts));

test('a file of authority records is no delivery: its headings are established, what does not belong is told, all goes back', async () => {
  const before = await catalogueOf(t.running);
  const sha256 = await loaded('names.mrc', new Uint8Array(readFileSync(demoFile('wickmere-names.mrc'))));
  expect((await cataloguer<unknown[]>('GET', '/deliveries')).body).toEqual([]);
  const asked = { sha256, name: 'names.mrc' };
  const review = (await cataloguer<Review>('POST', '/headings/file/review', asked)).body;
  expect(review.consequences.join(' ')).toMatch(/headings that only records have will be established/);
  const left = review.rows.filter((r) => /It is left/.test(r.exception ?? ''));
  expect(left.map((r) => r.exception).join(' ')).toMatch(
    /does not begin|no heading|reference record|An earlier record|leader\/06 is a|no such heading/,
  );
  expect(left).toHaveLength(5);
  const done = await take(sha256, { token: review.token });
  expect(done.message).toMatch(new RegExp(`^Loaded ${review.count} authority records from “names.mrc”`));
  const first = review.rows.find((r) => r.exception === null)!;
  const { rows } = (await cataloguer<HeadingPage>('GET', `/headings?q=${encodeURIComponent(first.label)}`))
    .body;
  const one = await heading(rows[0]!.id);
  expect(one.marc.fields.map((f) => f.tag)).toEqual(expect.arrayContaining(['001', '008', '400', '670']));
  // Taken in once more there is nothing to do.
  expect((await take(sha256)).message).toBe('There was nothing to load.');
  const undoing = await cataloguer<{ job?: number }>('POST', `/daybook/${done.entry}/undo`, {});
  if (undoing.body.job) await t.jobDone(cataloguer, undoing.body.job);
  expect(await catalogueOf(t.running)).toEqual(before);
}, 120_000);

test('a known number with another form changes the records that carry it; a deletion takes only what no record has', async () => {
  const { store } = t.running.services;
  const made: MarcRecord = {
    leader: '00000nam a2200000 i 4500',
    fields: [
      field('100', '1 ', 'a', 'Osierman, Job,', 'd', '1901-', 'e', 'author.'),
      field('245', '10', 'a', 'On baskets /'),
    ],
  };
  const record = await store.nextIds('record', 1);
  const id = await store.nextIds('heading', 1);
  const [use] = headingsOf(made);
  await commit(store, {
    did: TESTED,
    person: 1,
    changes: [creation('record', record, made), creation('heading', id, headingFrom(use!))],
  });
  const form = (d: string) => field('100', '1 ', 'a', 'Osierman, Job,', 'd', d);
  await take(await loaded('one.mrc', new Uint8Array(authority('wr77', [form('1901-')]))));
  expect((await heading(id)).marc.fields.find((f) => f.tag === '001')).toEqual({ tag: '001', value: 'wr77' });
  const next = joined(
    authority('wr77', [form('1901-1979')]),
    authority('wr78', [field('100', '1 ', 'a', 'Nobody, Ever')]),
  );
  const done = await take(await loaded('two.mrc', next));
  expect(done.message).toBe('Loaded 2 authority records from “names.mrc”: 1 new heading, 1 record changed.');
  const marc = (await cataloguer<RecordDetail>('GET', `/records/${record}`)).body.marc;
  expect(marc.fields[0]).toEqual(
    field('100', '1 ', 'a', 'Osierman, Job,', 'd', '1901-1979,', 'e', 'author.'),
  );
  expect(await heading(id)).toMatchObject({
    text: 'Osierman, Job, 1901-1979',
    records: 1,
    seeFrom: ['Osierman, Job, 1901-'],
  });
  expect((await cataloguer<LookUp>('GET', `/look-up?q=heading%20${id}`)).body).toMatchObject({ id });
  const gone = joined(
    authority('wr77', [form('1901-1979')], '00000dz  a2200000n  4500'),
    authority('wr78', [field('100', '1 ', 'a', 'Nobody, Ever')], '00000dz  a2200000n  4500'),
  );
  const review = await cataloguer<Review>('POST', '/headings/file/review', {
    sha256: await loaded('three.mrc', gone),
    name: 'three.mrc',
  });
  expect(review.body.rows.map((r) => r.exception)).toEqual([
    expect.stringMatching(/1 record carries the heading/),
    null,
  ]);
  await take(await loaded('three.mrc', gone));
  expect((await cataloguer<HeadingPage>('GET', '/headings?q=Nobody%20Ever')).body.rows).toEqual([]);
});

test('a replaced heading is merged into the one that replaces it, as that is by then, in all records; all goes back', async () => {
  const { store } = t.running.services;
  const lost = field('100', '1 ', 'a', 'Withiman, J.');
  const form = (d: string) => field('100', '1 ', 'a', 'Withiman, Joan,', 'd', d);
  const carrying = (title: string): MarcRecord => ({
    leader: '00000nam a2200000 i 4500',
    fields: [
      field('100', '1 ', 'a', 'Withiman, J.,', 'e', 'author.'),
      field('245', '10', 'a', title, 'c', 'J. Withiman.'),
      field('700', '12', 'a', 'Withiman, J.', 't', 'Works.'),
    ],
  });
  const marcs = [carrying('On hurdles /'), carrying('On gates /')];
  const [record, id] = [await store.nextIds('record', 2), await store.nextIds('heading', 2)];
  const of = (own: typeof lost) => headingFrom(headingsOf({ leader: '', fields: [own] })[0]!);
  await commit(store, {
    did: TESTED,
    person: 1,
    changes: [
      ...marcs.map((marc, i) => creation('record', record + i, marc)),
      creation('heading', id, of(lost)),
      creation('heading', id + 1, of(form('1920-'))),
    ],
  });
  const note = field('682', '  ', 'i', 'Replaced by', 'a', 'Withiman, Joan, 1920-', '0', '(WickReg)wr91');
  const x = authority('wr90', [lost, note], '00000xz  a2200000n  4500');
  const asked = (sha256: string) => ({ sha256, name: 'names.mrc' });
  const reviewed = async (sha256: string) =>
    (await cataloguer<Review>('POST', '/headings/file/review', asked(sha256))).body;
  // Its number is not known here yet, its form is.
  const byForm = await reviewed(await loaded('x.mrc', new Uint8Array(x)));
  expect(byForm.rows.map((r) => r.detail)).toEqual(['Replaced by “Withiman, Joan, 1920-” · 2 records']);
  const left = 'The statement of responsibility (245 $c) names it too and stays as it is.';
  const told = `2 records, record ${record} the first: ${left}`;
  expect(byForm.rows.map((r) => r.exception)).toEqual([told]);
  expect(byForm.consequences).toEqual([
    '1 heading will be merged into the one that replaces it, in all records that carry it.',
  ]);
  await take(await loaded('kept.mrc', new Uint8Array(authority('wr91', [form('1920-')]))));
  const before = await catalogueOf(t.running);

  // The file gives the other one another form before it says that it replaces the first.
  const both = await loaded('both.mrc', joined(authority('wr91', [form('1920-1999')]), x));
  const review = await reviewed(both);
  expect(review.rows.map((r) => [r.detail, r.exception])).toEqual([
    ['Replaced by “Withiman, Joan, 1920-” · 2 records', told],
    ['Another form', null],
  ]);
  const done = await take(both, { token: review.token });
  expect(done.message).toBe(
    'Loaded 2 authority records from “names.mrc”: 0 new headings, 2 records changed.',
  );
  const now = async (n: number) => (await cataloguer<RecordDetail>('GET', `/records/${n}`)).body.marc.fields;
  for (const n of [record, record + 1]) {
    const [main, , other] = await now(n);
    expect(main).toEqual(field('100', '1 ', 'a', 'Withiman, Joan,', 'd', '1920-1999,', 'e', 'author.'));
    expect(other).toEqual(field('700', '12', 'a', 'Withiman, Joan,', 'd', '1920-1999.', 't', 'Works.'));
  }
  expect(await heading(id + 1)).toMatchObject({ text: 'Withiman, Joan, 1920-1999', records: 2 });
  expect((await heading(id + 1)).seeFrom.toSorted()).toEqual(['Withiman, J.', 'Withiman, Joan, 1920-']);
  expect((await store.read('heading', id))!.value.mergedInto).toBe(id + 1);
  // Loaded once more there is nothing to do.
  expect(await reviewed(both)).toMatchObject({ count: 0, rows: [] });
  expect((await cataloguer('POST', `/daybook/${done.entry}/undo`)).status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('what its replacement is not here for, or goes with it, is left and told', async () => {
  const x = (number: string, a: string, text: string) =>
    authority(
      number,
      [field('100', '1 ', 'a', a), field('682', '  ', 'i', 'Replaced by', 'a', text)],
      '00000xz  a2200000n  4500',
    );
  const names = ['Reedwright, A.', 'Reedwright, B.', 'Reedwright, C.'];
  await take(
    await loaded(
      'reeds.mrc',
      joined(...names.map((a, i) => authority(`wr10${i}`, [field('100', '1 ', 'a', a)]))),
    ),
  );
  const chain = joined(
    x('wr100', names[0]!, names[1]!),
    x('wr101', names[1]!, names[2]!),
    x('wr102', names[2]!, 'Reedwright, Nobody'),
  );
  const sha256 = await loaded('chain.mrc', chain);
  const review = (await cataloguer<Review>('POST', '/headings/file/review', { sha256, name: 'chain.mrc' }))
    .body;
  expect(review.rows.map((r) => [r.label, r.exception])).toEqual([
    [names[0], expect.stringContaining('which replaces it, goes with this file as well')],
    [names[2], expect.stringContaining('“Reedwright, Nobody” (682), which is not here')],
    [names[1], null],
  ]);
  await take(sha256);
  const rest = (await cataloguer<Review>('POST', '/headings/file/review', { sha256, name: 'chain.mrc' }))
    .body;
  // The first follows now to where its replacement went.
  expect(rest.rows.find((r) => r.label === names[0])?.detail).toContain('Replaced by “Reedwright, C.');
});

test('of two records of a file that are about one heading the first is taken', async () => {
  await take(
    await loaded('a.mrc', new Uint8Array(authority('wr80', [field('100', '1 ', 'a', 'Marten, Ivy')]))),
  );
  const both = joined(
    authority('wr80', [field('100', '1 ', 'a', 'Marten, Ivy,', 'd', '1920-')]),
    authority('wr81', [field('100', '1 ', 'a', 'Marten, Ivy')]),
  );
  const sha256 = await loaded('b.mrc', both);
  const review = (await cataloguer<Review>('POST', '/headings/file/review', { sha256, name: 'b.mrc' })).body;
  expect(review.rows.map((r) => r.exception)).toEqual([
    expect.stringMatching(/An earlier record of the file is about this heading/),
    null,
  ]);
  expect((await take(sha256)).message).toMatch(/^Loaded 1 authority record /);
});

test('a file that was never loaded is not there, and a digest is a digest', async () => {
  const ask = (sha256: string) => cataloguer<Problem>('POST', '/headings/file/review', { sha256, name: 'x' });
  expect((await ask('0'.repeat(64))).status).toBe(404);
  expect((await ask('../osier.sqlite')).status).toBe(422);
  const assistant = await t.as(3);
  expect((await assistant('POST', '/headings/file', { sha256: '0'.repeat(64), name: 'x' })).status).toBe(403);
});
