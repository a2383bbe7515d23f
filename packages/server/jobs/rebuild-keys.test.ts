import type { IncomingPage, JobState, SearchAnswer } from '@osier/contract';
import { recordKeysAreOld } from '../projections/record-keys';
import { startTesting } from '../testing/running';
import { beginRebuildingKeys } from './rebuild-keys';

let t: Awaited<ReturnType<typeof startTesting>>;
beforeAll(async () => (t = await startTesting()));
afterAll(() => t.stop());

const TABLES = {
  records: 'id, title, author, year, isbn, publisher, edition, language, material, sort, matching',
  record_keys: 'kind, key, record',
  record_rows: 'id, sort, title, author, year, isbn, publisher, edition, language, material',
  facet_counts: 'facet, value, n',
};
const dump = async () =>
  Object.fromEntries(
    await Promise.all(
      Object.entries(TABLES).map(async ([table, columns]) => [
        table,
        await t.running.services.store.rows(`SELECT ${columns} FROM ${table} ORDER BY 1, 2, 3`),
      ]),
    ),
  ) as Record<string, unknown[]>;
/** As if an older rule had made the keys: some are wrong, some lacking. */
const spoil = () =>
  t.running.services.store.write(async (tx) => {
    const { store } = t.running.services;
    await store.run("UPDATE records SET sort = 'old ' || sort, matching = '', title = upper(title)", {}, tx);
    await store.run("DELETE FROM record_keys WHERE kind IN ('isbn', 'alike')", {}, tx);
    await store.run("INSERT INTO record_keys (kind, key, record) VALUES ('isbn', 'stale', 3)", {}, tx);
    await store.run("UPDATE key_versions SET version = 0 WHERE name = 'record-keys'", {}, tx);
  });

test('keys of an older rule are computed anew by a job, while people search, and come out as if written today', async () => {
  const { services } = t.running;
  const head = await t.as(1);
  const before = await dump();
  await spoil();
  expect(await recordKeysAreOld(services.store)).toBe(true);
  await beginRebuildingKeys(services);
  // Once is enough, however often it is asked for.
  await beginRebuildingKeys(services);
  const [job, ...others] = services.jobs.running();
  expect([job!.kind, job!.total, others]).toEqual(['rebuild-keys', 1500, []]);
  const meanwhile = await head<SearchAnswer>('GET', '/records?q=willow');
  expect(meanwhile.body.total).toBeGreaterThan(50);
  const done: JobState = await t.jobDone(head, job!.id);
  expect(done).toMatchObject({
    state: 'done',
    done: 1500,
    message: 'Updated the search keys of 1,500 records.',
  });
  expect(await recordKeysAreOld(services.store)).toBe(false);
  expect(await dump()).toEqual(before);
});

test('one that is cancelled is begun again at the next start, and goes through', async () => {
  const { services } = t.running;
  const head = await t.as(1);
  const before = await dump();
  await spoil();
  await beginRebuildingKeys(services);
  const id = services.jobs.running()[0]!.id;
  await head('POST', `/jobs/${id}/cancel`);
  expect((await t.jobDone(head, id)).state).toBe('cancelled');
  expect(await recordKeysAreOld(services.store)).toBe(true);
  await beginRebuildingKeys(services);
  await t.jobDone(head, services.jobs.running()[0]!.id);
  expect(await dump()).toEqual(before);
});

test('what comes while the keys are old is matched by what has its keys already', async () => {
  const { services } = t.running;
  const head = await t.as(1);
  await spoil();
  const { body } = await head<{ delivery: number; job: number }>(
    'POST',
    '/deliveries?name=one.json',
    Buffer.from(
      JSON.stringify([
        {
          leader: '00000nam a2200000 i 4500',
          fields: [{ '245': { ind1: '0', ind2: '0', subfields: [{ a: 'Quoits' }] } }],
        },
      ]),
    ),
  );
  await t.jobDone(head, body.job);
  const { rows } = (await head<IncomingPage>('GET', `/deliveries/${body.delivery}/incoming`)).body;
  expect(rows.map((r) => r.decision)).toEqual(['add']);
  await beginRebuildingKeys(services);
  await t.jobDone(head, services.jobs.running()[0]!.id);
});
