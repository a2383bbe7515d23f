import type { HeadingDetail, LookAlikeGroup, LookUp, Problem, RecordDetail, Review } from '@osier/contract';
import { catalogueOf, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
beforeAll(async () => {
  t = await startTesting();
  cataloguer = await t.as(2);
});
afterAll(() => t.stop());
const groups = async () => (await cataloguer<LookAlikeGroup[]>('GET', '/headings/look-alikes')).body;
const heading = async (id: number) => (await cataloguer<HeadingDetail>('GET', `/headings/${id}`)).body;

test('a merge does what its review shows: records, see-from, the old number', async () => {
  const before = await catalogueOf(t.running);
  const [group, ...others] = await groups();
  const [kept, lost] = [...group!.headings].sort((a, b) => b.text.length - a.text.length);
  const body = { kept: kept!.id, lost: [lost!.id] };
  const review = (await cataloguer<Review>('POST', '/headings/merge/review', body)).body;
  expect(review.rows).toHaveLength(lost!.records);
  const done = await cataloguer<{ entry: number }>('POST', '/headings/merge', body);
  expect(done.status).toBe(200);
  for (const row of review.rows) {
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
  const [group] = await groups();
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
  const { body } = await cataloguer<{ entry: number }>('POST', '/headings/distinct', { a, b });
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
