import type { DaybookPage, Problem, RecordDetail, SearchAnswer } from '@osier/contract';
import { field } from '@osier/core/marc';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
let head: Ask;
let record: RecordDetail;
beforeAll(async () => {
  t = await startTesting();
  [head, cataloguer] = [await t.as(1), await t.as(2)];
  const rows = (await cataloguer<SearchAnswer>('GET', '/records')).body.rows;
  const id = rows.find((r) => r.copies > 0)!.id;
  record = (await cataloguer<RecordDetail>('GET', `/records/${id}`)).body;
  await cataloguer('PUT', `/records/${id}`, {
    version: record.version,
    marc: { ...record.marc, fields: [...record.marc.fields, field('500', '  ', 'a', 'Filtered.')] },
  });
  const { id: copy, version } = record.holdings.flatMap((h) => h.copies)[0]!;
  await head('PUT', `/copies/${copy}`, { version, status: 'in repair' });
});
afterAll(() => t.stop());
const entries = async (query: string) => {
  const { body } = await cataloguer<DaybookPage>('GET', `/daybook?${query}`);
  return body.rows.map((r) => r.act);
};
const day = (by: number) => new Date(Date.now() + by * 86_400_000).toISOString().slice(0, 10);

test('entries of a person, an area, an act', async () => {
  expect(await entries('person=2')).toEqual(['edit-record']);
  expect(await entries('mine=1')).toEqual(['edit-record']);
  expect(await entries('area=Copies')).toEqual(['change-copy']);
  expect(await entries('act=edit-record')).toEqual(['edit-record']);
  expect(await entries('area=Copies&person=2')).toEqual([]);
});
test('entries of days: both ends are whole days', async () => {
  const today = `from=${day(0)}&to=${day(0)}`;
  expect(await entries(`${today}&area=Copies`)).toEqual(['change-copy']);
  expect(await entries(`from=${day(1)}`)).toEqual([]);
  expect(await entries(`to=${day(-1)}`)).toEqual([]);
});
test('entries between two instants: the first is part of it, the last is not', async () => {
  const { at } = (await cataloguer<DaybookPage>('GET', '/daybook?area=Copies')).body.rows[0]!;
  const later = new Date(Date.parse(at) + 1).toISOString();
  expect(await entries(`from=${at}&to=${later}&area=Copies`)).toEqual(['change-copy']);
  expect(await entries(`to=${at}&area=Copies`)).toEqual([]);
  expect(await entries(`from=${later}&area=Copies`)).toEqual([]);
});
test('entries that touched a record or the copy with a barcode', async () => {
  const { barcode } = record.holdings.flatMap((h) => h.copies)[0]!.copy;
  expect((await entries(`object=r${record.id}`))[0]).toBe('edit-record');
  expect((await entries(`object=${barcode}`))[0]).toBe('change-copy');
  expect(await entries('object=r9999999')).toEqual([]);
  // A holding has a history of its own, with the copies that are on it.
  const [holding] = record.holdings;
  expect((await entries(`object=holding ${holding!.id}`))[0]).toBe('change-copy');
  expect(await entries('object=holding 9999999')).toEqual([]);
});
test('what is no object, area or day is told at its place', async () => {
  const refused = async (query: string) => (await cataloguer<Problem>('GET', `/daybook?${query}`)).body;
  expect((await refused('object=eels')).fields?.[0]?.field).toBe('object');
  expect((await refused('area=Attic')).status).toBe(422);
  for (const from of ['yesterday', '2026-02-30', '2026-02-20T25:00:00.000Z', '2026-02-20T10:00'])
    expect((await refused(`from=${from}`)).status).toBe(422);
});
