import type { RecordDetail, SearchAnswer, SearchFacetCounts, SetUp } from '@osier/contract';
import { checkRecord } from '@osier/core/checks';
import { field } from '@osier/core/marc';
import { findingsAreOld } from '../projections/record-findings';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let head: Ask;
beforeAll(async () => {
  t = await startTesting();
  head = await t.as(1);
});
afterAll(() => t.stop());

/** What the checks find in all records now, by rule: worked out here, record by record. */
async function counted(): Promise<Record<string, number>> {
  const { store } = t.running.services;
  const house = await store.rulesNow();
  const counts: Record<string, number> = {};
  for (const { value } of await store.select('record', '1'))
    for (const rule of new Set(checkRecord(value, house).map((f) => f.rule)))
      counts[rule] = (counts[rule] ?? 0) + 1;
  return counts;
}
const facets = async (query = '') =>
  (await head<SearchFacetCounts>('GET', `/records/facets?${query}`)).body.finding;
const total = async (query: string) => (await head<SearchAnswer>('GET', `/records?${query}`)).body.total;

test('findings of the catalogue are counted by rule, narrow a search, and follow what is saved', async () => {
  const before = await facets();
  expect(before).toEqual(await counted());
  const [rule, n] = Object.entries(before)[0]!;
  expect(await total(`finding=${rule}`)).toBe(n);
  const within = (await facets('q=willow'))[rule] ?? 0;
  expect(await total(`q=willow&finding=${rule}`)).toBe(within);

  const record = (await head<RecordDetail>('GET', '/records/20')).body;
  const fields = [...record.marc.fields, field('500', '  ', 'a', 'A note  with extra spaces.')];
  await head('PUT', '/records/20', { version: record.version, marc: { ...record.marc, fields } });
  expect((await facets()).spaces ?? 0).toBe((before.spaces ?? 0) + 1);
  expect(await facets()).toEqual(await counted());
});

test('when the house rules change, all records are checked again by a job, and stand as the new rules have it', async () => {
  const { store, jobs } = t.running.services;
  const { house } = (await head<SetUp>('GET', '/set-up')).body;
  const before = await facets();
  const [rule] = Object.entries(before)[0]!;
  const saved = await head('PUT', '/set-up/house', {
    version: house.version,
    ...house.value,
    checksOff: [...house.value.checksOff, rule],
    classDecimals: 4,
  });
  expect(saved.status).toBe(200);
  expect(await findingsAreOld(store)).toBe(true);
  for (let i = 0; i < 500 && (await findingsAreOld(store)); i++) await new Promise((r) => setTimeout(r, 20));
  await jobs.idle();
  expect(await findingsAreOld(store)).toBe(false);
  const after = await facets();
  expect(after[rule]).toBeUndefined();
  expect(after).toEqual(await counted());
});
