import type {
  Done,
  SeenHeadings,
  HeadingDetail,
  LookAlikePage,
  LookUp,
  Problem,
  RecordDetail,
  Review,
} from '@osier/contract';
import { creation } from '@osier/core/changes';
import { headingFrom } from '@osier/core/headings';
import { field, writeIso2709, type DataField } from '@osier/core/marc';
import { commit } from '../store/commit';
import { TESTED } from '../testing/tested';
import { catalogueOf, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
beforeAll(async () => {
  t = await startTesting();
  cataloguer = await t.as(2);
});
afterAll(() => t.stop());
/** The groups, once all names that were touched are compared. */
async function groups() {
  await t.running.services.background.idle();
  return (await cataloguer<LookAlikePage>('GET', '/headings/look-alikes')).body.rows;
}
const groupOfNames = async () => (await groups()).find((g) => g.headings.every((h) => h.kind === 'personal'));
const heading = async (id: number) => (await cataloguer<HeadingDetail>('GET', `/headings/${id}`)).body;

test('a merge does what its review shows: records, see-from, the old number', async () => {
  const before = await catalogueOf(t.running);
  const [group, ...others] = await groups();
  const [kept, lost] = [...group!.headings].sort((a, b) => b.text.length - a.text.length);
  const body = { kept: kept!.id, lost: [lost!.id] };
  const review = (await cataloguer<Review>('POST', '/headings/merge/review', body)).body;
  const rows = review.rows.filter((r) => r.id > 0);
  expect(rows).toHaveLength(lost!.records);
  const done = await cataloguer<{ entry: number }>('POST', '/headings/merge', body);
  expect(done.status).toBe(200);
  for (const row of rows) {
    const record = (await cataloguer<RecordDetail>('GET', `/records/${row.id}`)).body;
    expect(record.marc).toEqual((row.after as { marc: unknown }).marc);
    expect(record.headings.map((h) => h.id)).toContain(kept!.id);
  }
  expect(await heading(kept!.id)).toMatchObject({
    records: kept!.records + lost!.records,
    seeFrom: [lost!.text],
    mergedFrom: [{ id: lost!.id, text: lost!.text }],
  });
  expect(await heading(lost!.id)).toMatchObject({ mergedInto: kept!.id });
  expect((await cataloguer<LookUp>('GET', `/look-up?q=heading%20${lost!.id}`)).body).toMatchObject({
    as: 'heading',
    id: kept!.id,
  });
  expect((await groups()).length).toBe(others.length);
  const again = await cataloguer<Problem>('POST', '/headings/merge', body);
  expect(again.body.detail).toContain('merged into heading');
  expect((await cataloguer('POST', `/daybook/${done.body.entry}/undo`)).status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('a record that comes later under the lost form leads to the kept heading', async () => {
  const group = await groupOfNames();
  const [kept, lost] = group!.headings;
  await cataloguer('POST', '/headings/merge', { kept: kept!.id, lost: [lost!.id] });
  const record = (await cataloguer<RecordDetail>('GET', '/records/20')).body;
  const subfields = lost!.text.match(/^(.*?)(?:, (\d{4}-.*))?$/)!;
  const name = {
    tag: '700',
    ind1: '1',
    ind2: ' ',
    subfields: [
      { code: 'a', value: subfields[1]! },
      ...(subfields[2] ? [{ code: 'd', value: subfields[2] }] : []),
    ],
  };
  await cataloguer('PUT', '/records/20', {
    version: record.version,
    marc: { ...record.marc, fields: [...record.marc.fields, name] },
  });
  expect((await cataloguer<RecordDetail>('GET', '/records/20')).body.headings.map((h) => h.id)).toContain(
    kept!.id,
  );
});

test('two people are remembered as two, and the memory can be taken back', async () => {
  const all = await groups();
  const { a, b } = all[0]!.pairs[0]!;
  const said = { headings: [b, a], reason: 'Dates differ' };
  const { body } = await cataloguer<Done>('POST', '/headings/distinct', said);
  expect(body.sentence).toMatch(/as different headings \(Dates differ\)/);
  expect(await groups()).toHaveLength(all.length - 1);
  await cataloguer('POST', `/daybook/${body.entry}/undo`);
  expect(await groups()).toHaveLength(all.length);
});

test('what cannot be merged is told', async () => {
  const topic = (await cataloguer<{ rows: { id: number }[] }>('GET', '/headings?kind=topic')).body.rows[0]!;
  const person = (await groups())[0]!.headings[0]!;
  const merge = async (kept: number, lost: number[]) =>
    (await cataloguer<Problem>('POST', '/headings/merge', { kept, lost })).body.detail;
  expect(await merge(person.id, [topic.id])).toContain('is a topic heading');
  expect(await merge(person.id, [person.id])).toContain('itself');
  expect(await merge(person.id, [])).toContain('Choose what is merged');
});

test('a record that is saved or arrives with a see-from gets the kept form, and that is told', async () => {
  const group = await groupOfNames();
  const [kept, lost] = [...group!.headings].sort((a, b) => b.text.length - a.text.length);
  await cataloguer('POST', '/headings/merge', { kept: kept!.id, lost: [lost!.id] });
  const form = (await heading(kept!.id)).marc.fields.find((f) => f.tag === '400') as DataField;
  const before = (await cataloguer<RecordDetail>('GET', '/records/20')).body;
  const added: DataField = {
    ...form,
    tag: '700',
    ind2: ' ',
    subfields: [...form.subfields, { code: 'e', value: 'editor.' }],
  };
  const marc = { ...before.marc, fields: [...before.marc.fields, added] };
  const saved = await cataloguer<{ sentence: string }>('PUT', '/records/20', {
    version: before.version,
    marc,
  });
  expect(saved.body.sentence).toMatch(/“.+” became “.+”/);
  const after = (await cataloguer<RecordDetail>('GET', '/records/20')).body;
  expect(after.headings.map((h) => h.id)).toContain(kept!.id);
  expect((await heading(lost!.id)).records).toBe(0);

  const file = writeIso2709({
    leader: '00000nam a2200000 i 4500',
    fields: [{ ...form, tag: '100' }, field('245', '10', 'a', 'A book by the lost form')],
  });
  const delivered = await cataloguer<{ delivery: number; job: number }>(
    'POST',
    '/deliveries?name=lost.mrc',
    new Uint8Array(file),
  );
  await t.jobDone(cataloguer, delivered.body.job);
  const review = await cataloguer<Review>('POST', `/deliveries/${delivered.body.delivery}/accept/review`, {});
  expect(review.body.consequences.join()).toMatch(/1 name or subject that is a see-from gets its kept form/);
  const job = await cataloguer<{ id: number }>('POST', `/deliveries/${delivered.body.delivery}/accept`, {});
  expect((await t.jobDone(cataloguer, job.body.id)).message).toMatch(/1 see-from replaced by the kept form/);
  expect((await heading(lost!.id)).records).toBe(0);
  expect((await heading(kept!.id)).usedBy.map((r) => r.title)).toContain('A book by the lost form');
});

test('a heading cannot be kept apart from itself, nor two of different vocabularies merged', async () => {
  expect((await cataloguer<Problem>('POST', '/headings/distinct', { headings: [5, 5] })).body.detail).toMatch(
    /from itself/,
  );
  const { store } = t.running.services;
  const at = await store.nextIds('heading', 2);
  const use = {
    kind: 'topic',
    key: 'X',
    subfields: [{ code: 'a', value: 'Weirs of the Lode' }],
    ...{ tag: '150', ind1: ' ', ind2: ' ' },
  } as const;
  await commit(store, {
    did: TESTED,
    person: 1,
    changes: ['lcsh', 'mesh'].map((vocabulary, i) =>
      creation('heading', at + i, headingFrom({ ...use, vocabulary })),
    ),
  });
  const refused = await cataloguer<Problem>('POST', '/headings/merge', { kept: at, lost: [at + 1] });
  expect([refused.status, refused.body.detail]).toEqual([422, expect.stringMatching(/two vocabularies/)]);
});

test('what the records of look-alikes say for and against is told when a group is opened', async () => {
  const list = (await cataloguer<LookAlikePage>('GET', '/headings/look-alikes')).body;
  expect(list.rows.length).toBeGreaterThan(5);
  for (const group of list.rows) {
    const own = new Set(group.headings.map((h) => h.id));
    expect(group.pairs.length).toBeGreaterThan(0);
    expect(group.pairs.every((p) => own.has(p.a) && own.has(p.b))).toBe(true);
  }
  for (const group of list.rows.slice(0, 5)) {
    const ids = group.headings.map((h) => h.id);
    const { status, body } = await cataloguer<SeenHeadings>('GET', `/headings/evidence?ids=${ids.join(',')}`);
    expect(status).toBe(200);
    expect(body.headings.map((h) => h.id).sort()).toEqual([...ids].sort());
    expect(body.pairs).toHaveLength((ids.length * (ids.length - 1)) / 2);
    for (const p of body.pairs) expect(p.evidence.length).toBeGreaterThan(0);
    // Each of them is carried by records of the demo library, which are dated; of subjects and genres their years say nothing.
    for (const h of body.headings.filter((b) => b.kind === 'personal'))
      expect(h.years!.first).toBeLessThanOrEqual(h.years!.last);
  }
  expect((await cataloguer('GET', '/headings/evidence?ids=1')).status).toBe(422);
  expect((await cataloguer('GET', '/headings/evidence?ids=1,999999')).status).toBe(404);
  expect((await cataloguer('GET', '/headings/evidence?ids=1;2')).status).toBe(422);
});
