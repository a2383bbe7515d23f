import type { IncomingPage, JobState, SearchAnswer, SetUp } from '@osier/contract';
import { update } from '@osier/core/changes';
import { field, type MarcRecord } from '@osier/core/marc';
import { KEYS_BEGIN, oldRecordKeys, recordKeysAnew } from '../projections/record-keys';
import { areShelfKeysOld, shelfKeysAnew } from '../projections/shelf-keys';
import { commit } from '../store/commit';
import { startTesting } from '../testing/running';
import { TESTED } from '../testing/tested';
import { beginMakingHeadings } from '../headings/make-headings';
import { beginRebuildingKeys } from './rebuild-keys';

let t: Awaited<ReturnType<typeof startTesting>>;
beforeAll(async () => {
  t = await startTesting();
  // A rebuilding ends by making the headings that records carry: made here, a later one has none to make
  // while the tables are compared.
  await beginMakingHeadings(t.running.services);
  const making = t.running.services.jobs.running().find((j) => j.kind === 'make-headings')!;
  await t.jobDone(await t.as(1), making.id);
});
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
    await store.run(
      "UPDATE key_versions SET version = 0 WHERE name IN ('record isbn', 'record columns')",
      {},
      tx,
    );
  });

test('keys of an older rule are computed anew by a job, while people search, and come out as if written today', async () => {
  const { services } = t.running;
  const head = await t.as(1);
  const before = await dump();
  await spoil();
  expect(await oldRecordKeys(services.store)).toEqual({ columns: true, index: true });
  await beginRebuildingKeys(services);
  // Once is enough, however often it is asked for.
  await beginRebuildingKeys(services);
  const [job, ...others] = services.jobs.running().filter((j) => j.kind === 'rebuild-keys');
  expect([job!.total, others]).toEqual([1506, []]);
  const meanwhile = await head<SearchAnswer>('GET', '/records?q=willow');
  expect(meanwhile.body.total).toBeGreaterThan(50);
  const done: JobState = await t.jobDone(head, job!.id);
  expect([done.state, done.done]).toEqual(['done', 1506]);
  expect(done.message).toMatch(
    /^Updated the search keys of 1,506 records in \d+ seconds?; the index of words has (?!0\.0 )\d+\.\d MB\.$/,
  );
  expect(await oldRecordKeys(services.store)).toEqual({ columns: false, index: false });
  expect(await dump()).toEqual(before);
});

test('places on the shelf of an older rule are computed anew, of holdings, copies and what stocktakes expect', async () => {
  const { store } = t.running.services;
  const places = () =>
    store.rows(
      'SELECT h.id, h.shelf_key AS h, c.id AS c, c.shelf_key AS k FROM holdings h LEFT JOIN copies c ON c.holding = h.id ORDER BY 1, 3',
    );
  const expected = () =>
    store.rows<{ n: number }>(
      'SELECT COUNT(*) AS n FROM stocktake_expected e JOIN copies c ON c.id = e.copy WHERE e.shelf_key <> c.shelf_key',
    );
  const before = await places();
  expect(before.length).toBeGreaterThan(1000);
  await store.write(async (tx) => {
    await store.run("UPDATE holdings SET shelf_key = 'x' || shelf_key WHERE id % 3 = 0", {}, tx);
    await store.run("UPDATE copies SET shelf_key = 'x' WHERE id % 2 = 0", {}, tx);
    await store.run("UPDATE stocktake_expected SET shelf_key = 'x' WHERE copy % 2 = 0", {}, tx);
    await store.run("DELETE FROM key_versions WHERE name = 'holding shelf_key'", {}, tx);
  });
  expect(await areShelfKeysOld(store)).toBe(true);
  await shelfKeysAnew(store, () => true);
  expect(await areShelfKeysOld(store)).toBe(true);
  await shelfKeysAnew(store);
  expect(await areShelfKeysOld(store)).toBe(false);
  expect(await places()).toEqual(before);
  expect(await expected()).toEqual([{ n: 0 }]);
});

test('where only the places on the shelf are old, the job does those alone', async () => {
  const { services } = t.running;
  const head = await t.as(1);
  await services.store.write((tx) =>
    services.store.run("DELETE FROM key_versions WHERE name = 'holding shelf_key'", {}, tx),
  );
  await beginRebuildingKeys(services);
  const job = services.jobs.running().find((j) => j.kind === 'rebuild-keys')!;
  expect(await t.jobDone(head, job.id)).toMatchObject({
    state: 'done',
    message: 'Updated the places of all holdings on the shelf.',
  });
  expect(await areShelfKeysOld(services.store)).toBe(false);
});

test('one that is cancelled is begun again at the next start, and goes through', async () => {
  const { services } = t.running;
  const head = await t.as(1);
  const before = await dump();
  await spoil();
  await beginRebuildingKeys(services);
  const id = services.jobs.running().find((j) => j.kind === 'rebuild-keys')!.id;
  await head('POST', `/jobs/${id}/cancel`);
  expect((await t.jobDone(head, id)).state).toBe('cancelled');
  expect(await oldRecordKeys(services.store)).toEqual({ columns: true, index: true });
  await beginRebuildingKeys(services);
  await t.jobDone(head, services.jobs.running().find((j) => j.kind === 'rebuild-keys')!.id);
  expect(await dump()).toEqual(before);
});

test('until all new keys are there the old ones are searched, and what is saved meanwhile is in both', async () => {
  const { store } = t.running.services;
  const head = await t.as(1);
  const titles = async (q: string) =>
    (await head<SearchAnswer>('GET', `/records?q=${q}`)).body.rows.map((r) => r.title);
  await spoil();
  // Half of the work, and then it stops.
  let [pieces, at] = [0, KEYS_BEGIN];
  await recordKeysAnew(
    store,
    KEYS_BEGIN,
    (so) => {
      at = so;
      return Promise.resolve();
    },
    () => pieces++ === 3,
  );
  expect(at.done).toBe(600);
  expect(await store.rows("SELECT record FROM record_keys WHERE kind = 'isbn'")).toEqual([{ record: 3 }]);
  const { body } = await head<{ version: number; marc: MarcRecord }>('GET', '/records/2');
  const fields = body.marc.fields.map((f) =>
    f.tag === '245' ? field('245', '00', 'a', 'Quoitstone meanwhile') : f,
  );
  const saved = { version: body.version, marc: { ...body.marc, fields } };
  expect((await head('PUT', '/records/2', saved)).status).toBe(200);
  expect(await titles('quoitstone')).toEqual(['Quoitstone meanwhile']);
  await recordKeysAnew(store, at);
  expect(await titles('quoitstone')).toEqual(['Quoitstone meanwhile']);
  const kept = await store.row<{ n: number }>("SELECT COUNT(*) AS n FROM record_keys WHERE kind = 'isbn'");
  expect(kept!.n).toBeGreaterThan(500);
  // As if they had been computed in one go.
  const now = await dump();
  await spoil();
  // What was begun by other rules is no beginning.
  expect(await recordKeysAnew(store, { place: 900, done: 900, rules: 'older' })).toBe(1506);
  expect(await dump()).toEqual(now);
  expect(await store.rows('SELECT * FROM record_keys_coming')).toEqual([]);
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
  await t.jobDone(head, services.jobs.running().find((j) => j.kind === 'rebuild-keys')!.id);
});

test('prefixes in another order: call numbers are put in it by a job, searched and listed in it, and back again when that is undone', async () => {
  const { services } = t.running;
  const { store } = services;
  const head = await t.as(1);
  const places = () => store.rows('SELECT h.id, h.shelf_key FROM holdings h ORDER BY 1');
  const before = await places();
  const held = await store.select(
    'holding',
    "branch = 'MR' AND call_number LIKE '746.%' ORDER BY id LIMIT 4",
  );
  const changes = held.map((h, i) =>
    update('holding', h, { ...h.value, prefix: ['Z', 'J', 'REF', 'A'][i]! }),
  );
  await commit(store, { did: TESTED, person: 1, changes });
  const ordered = async () => {
    const ids = held.map((h) => h.id);
    const rows = await store.rows<{ prefix: string }>(
      "SELECT value ->> 'prefix' AS prefix FROM holdings WHERE id IN (:ids) ORDER BY shelf_key",
      { ids },
    );
    return rows.map((r) => r.prefix);
  };
  expect(await ordered()).toEqual(['A', 'J', 'REF', 'Z']);
  const { house } = (await head<SetUp>('GET', '/set-up')).body;
  const put = (prefixOrder: readonly string[]) =>
    head<{ entry: number }>('PUT', '/set-up/house', { ...house.value, prefixOrder, version: house.version });
  const twice = await put(['J', 'j']);
  expect([twice.status, twice.body]).toMatchObject([
    422,
    { fields: [{ field: 'prefixOrder', message: 'A prefix stands here twice.' }] },
  ]);
  const idle = async () => {
    while (await areShelfKeysOld(store)) await new Promise((resolve) => setTimeout(resolve, 20));
  };
  const saved = await put(['Z', 'REF', 'J']);
  expect(saved.status).toBe(200);
  await idle();
  expect(await ordered()).toEqual(['Z', 'REF', 'J', 'A']);
  // From Z to REF there is no J; all copies of these are found so, in the list of copies and by a query.
  const prefixes = async (path: string) => {
    const { body } = await head<{ rows: { callNumber: string }[] }>('GET', path);
    return [...new Set(body.rows.map((r) => /^[A-Z]+(?= )/.exec(r.callNumber)?.[0] ?? ''))];
  };
  expect(await prefixes('/copies?numberFrom=Z 000&numberTo=REF 999')).toEqual(['Z', 'REF']);
  const query = encodeURIComponent('callnumber within "REF 000 .. J 999"');
  expect(await prefixes(`/copies?q=${query}`)).toEqual(['REF', 'J']);
  const review = await head<{ copies: number }>('POST', '/stocktakes/review', {
    ...{
      branch: 'MR',
      also: [],
      locations: [],
      types: [],
      leftOut: [],
      scheme: 'dewey',
      from: 'Z 000',
      to: 'Z 999',
    },
    seenSince: '',
  });
  const [{ n } = { n: 0 }] = await store.rows<{ n: number }>(
    'SELECT COUNT(*) AS n FROM copies WHERE holding = :id',
    { id: held[0]!.id },
  );
  expect(review.body.copies).toBe(n);
  const undone = await head('POST', `/daybook/${saved.body.entry}/undo`, {});
  expect(undone.status).toBe(200);
  await idle();
  expect(await ordered()).toEqual(['A', 'J', 'REF', 'Z']);
  const back = (await places()).filter((p) => !held.some((h) => h.id === (p as { id: number }).id));
  expect(back).toEqual(before.filter((p) => !held.some((h) => h.id === (p as { id: number }).id)));
});
