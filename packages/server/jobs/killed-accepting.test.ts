import type { IncomingPage, JobState } from '@osier/contract';
import { field, writeIso2709, type MarcRecord } from '@osier/core/marc';
import { DEFAULT_SETTINGS } from '@osier/core/deliveries';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openStore } from '../store/open-store';
import { client, ended, kill, killAll, start } from '../testing/killing';
import { layLibrary } from '../testing/library';

afterAll(killAll);

const RECORDS = 2000;
const KILLS = 6;

/** Small records, every third with a copy from the roll, every fiftieth one that comes twice. */
const record = (i: number): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [
    { tag: '001', value: `k${i}` },
    { tag: '003', value: 'Kill' },
    field('082', '04', 'a', '746.41'),
    field('100', '1 ', 'a', `Person ${String.fromCharCode(65 + (i % 26))}${i % 400}, Ada,`, 'e', 'author.'),
    field('245', '10', 'a', `Book ${i} of many /`),
    ...(i % 3 === 0 ? [field('949', '  ', 'b', 'MR', 'l', 'OPEN')] : []),
  ],
});
const delivery = Buffer.concat(
  Array.from({ length: RECORDS }, (_, i) => writeIso2709(record(i - (i % 50 === 49 ? 1 : 0)))),
);

/** Takes the delivery in, accepts it, and kills the server `kills` times on the way, at points chosen by `random`. */
async function accept(folder: string, kills: number, random: () => number): Promise<JobState> {
  layLibrary(folder);
  let server = await start(folder);
  const first = await client(server);
  const { ask } = first;
  let { until } = first;
  const taken = await ask<{ delivery: number; job: number }>(
    'POST',
    '/deliveries?name=kill.mrc',
    new Uint8Array(delivery),
  );
  expect((await until(taken.job, ended)).state).toBe('done');
  const { version } = await ask<{ version: number }>('GET', `/deliveries/${taken.delivery}/summary`);
  const settings = {
    ...DEFAULT_SETTINGS,
    mapping: { tag: '949', subfields: { branch: 'b', location: 'l' }, tables: {} },
    defaults: { ...DEFAULT_SETTINGS.defaults, type: 'BK' },
    roll: 1,
  };
  const put = JSON.stringify({ version, sheet: null, settings });
  const matching = await ask<JobState>('PUT', `/deliveries/${taken.delivery}/settings`, put);
  expect((await until(matching.id, ended)).state).toBe('done');
  const { facets } = await ask<IncomingPage>('GET', `/deliveries/${taken.delivery}/incoming`);
  expect(facets).toMatchObject({ all: RECORDS, add: RECORDS - RECORDS / 50, twice: RECORDS / 50 });

  const job = await ask<JobState>('POST', `/deliveries/${taken.delivery}/accept`, '{}');
  const points = Array.from({ length: kills }, () => Math.floor(random() * (RECORDS - 400))).sort(
    (a, b) => a - b,
  );
  // Work that is ended twice before it has come any further is parked; here each server comes further.
  let before = -1;
  for (const at of points) {
    const { done } = await until(job.id, (j) => (j.done >= at && j.done > before) || ended(j));
    before = done;
    await new Promise((r) => setTimeout(r, random() * 30));
    await kill(server);
    server = await start(folder);
    ({ until } = await client(server));
  }
  const done = await until(job.id, ended);
  await kill(server);
  return done;
}

/** Everything that accepting wrote, told without the numbers that were reserved and lost when the server was killed. */
async function contents(folder: string) {
  const store = await openStore(folder);
  const rows = <T>(sql: string) => store.rows<T>(sql);
  const found = {
    incoming: await rows('SELECT seq, state, decision, copies, copy_problems FROM incoming ORDER BY seq'),
    records: await rows(
      'SELECT i.seq, r.version, r.value, r.title, r.matching FROM incoming i JOIN records r ON r.id = i.record ORDER BY i.seq',
    ),
    copies: await rows(
      `SELECT i.seq, h.value ->> 'class' AS class, h.branch, h.location, c.barcode, c.type, c.value ->> 'number' AS number, c.value ->> 'acquired' AS acquired
       FROM incoming i JOIN holdings h ON h.record = i.record JOIN copies c ON c.holding = h.id ORDER BY i.seq, c.barcode`,
    ),
    headings: await rows('SELECT kind, key, text, value FROM headings ORDER BY kind, key, text'),
    keys: await rows(
      'SELECT i.seq, k.kind, k.key FROM incoming i JOIN record_keys k ON k.record = i.record ORDER BY 1, 2, 3',
    ),
    words: await rows(
      `SELECT i.seq FROM incoming i WHERE i.record IN (SELECT rowid FROM record_words WHERE record_words MATCH '"many"') ORDER BY 1`,
    ),
    daybook: await rows("SELECT act, sentence, objects FROM daybook WHERE act <> 'first-fill' ORDER BY id"),
    counts: await rows(
      'SELECT (SELECT COUNT(*) FROM records) AS records, (SELECT COUNT(*) FROM copies) AS copies, (SELECT COUNT(*) FROM holdings) AS holdings, (SELECT COUNT(*) FROM heading_keys) AS headings',
    ),
    sound: await rows('PRAGMA integrity_check'),
  };
  await store.close();
  return found;
}

/** The whole catalogue, and how many incoming records wait. */
async function catalogue(folder: string) {
  const store = await openStore(folder);
  const rows = (sql: string) => store.rows<object>(sql);
  const found = {
    records: await rows('SELECT * FROM records ORDER BY id'),
    holdings: await rows('SELECT * FROM holdings ORDER BY id'),
    copies: await rows('SELECT * FROM copies ORDER BY id'),
    headings: await rows('SELECT * FROM headings ORDER BY id'),
    keys: await rows('SELECT * FROM record_keys ORDER BY 1, 2, 3'),
    headingKeys: await rows('SELECT * FROM heading_keys ORDER BY 1, 2, 3'),
    words: await rows('SELECT COUNT(*) AS n FROM record_words'),
    done: await rows("SELECT COUNT(*) AS n FROM incoming WHERE state <> 'waiting'"),
    sound: await rows('PRAGMA integrity_check'),
  };
  await store.close();
  return found;
}

/** Takes an entry back, and kills the server `kills` times on the way. */
async function takeBack(
  folder: string,
  entry: number,
  kills: number,
  random: () => number,
): Promise<JobState> {
  let server = await start(folder);
  const first = await client(server);
  let { until } = first;
  const { job } = await first.ask<{ job: number }>('POST', `/daybook/${entry}/undo`);
  const { total } = await until(job, () => true);
  const points = Array.from({ length: kills }, () => Math.floor(random() * (total! - 2000))).sort(
    (a, b) => a - b,
  );
  let before = -1;
  for (const at of points) {
    const { done } = await until(job, (j) => (j.done >= at && j.done > before) || ended(j));
    before = done;
    await kill(server);
    server = await start(folder);
    ({ until } = await client(server));
  }
  const done = await until(job, ended);
  await kill(server);
  return done;
}

test(`killed at ${KILLS} random points of accepting ${RECORDS} records, the store is as after an uninterrupted run`, async () => {
  const seed = Date.now() % 100_000;
  let state = seed;
  const random = () => (state = (state * 48_271 + 11) % 2_147_483_647) / 2_147_483_647;
  const [calm, killed] = [
    mkdtempSync(join(tmpdir(), 'osier-calm-')),
    mkdtempSync(join(tmpdir(), 'osier-killed-')),
  ];
  const undisturbed = await accept(calm, 0, random);
  const done = await accept(killed, KILLS, random);
  expect(done).toMatchObject({ state: 'done', message: undisturbed.message, done: RECORDS });
  expect(done.message).toContain('Accepted 1,960 records');
  const [expected, found] = [await contents(calm), await contents(killed)];
  expect(expected.copies.length).toBeGreaterThan(630);
  for (const key of Object.keys(expected) as (keyof typeof expected)[])
    if (JSON.stringify(found[key]) !== JSON.stringify(expected[key]))
      throw new Error(`${key} differ (seed ${seed}): ${firstDifference(expected[key], found[key])}`);
  // Taken back from the daybook as one entry, killed on the way as well: the catalogue is as it was laid down.
  const undone = await takeBack(killed, done.entry!, 3, random);
  expect(undone.message).toMatch(/^Undid: Accepted 1,960 records/);
  const fresh = mkdtempSync(join(tmpdir(), 'osier-fresh-'));
  layLibrary(fresh);
  const [laidDown, left] = [await catalogue(fresh), await catalogue(killed)];
  for (const key of Object.keys(laidDown) as (keyof typeof laidDown)[])
    if (JSON.stringify(left[key]) !== JSON.stringify(laidDown[key]))
      throw new Error(`${key} differ (seed ${seed}): ${firstDifference(laidDown[key], left[key])}`);
  rmSync(fresh, { recursive: true });
  rmSync(calm, { recursive: true });
  rmSync(killed, { recursive: true });
}, 600_000);

function firstDifference(a: readonly unknown[], b: readonly unknown[]): string {
  const at = a.findIndex((x, i) => JSON.stringify(x) !== JSON.stringify(b[i]));
  return `${a.length} and ${b.length} rows; at ${at}: ${JSON.stringify(a[at])} | ${JSON.stringify(b[at])}`.slice(
    0,
    600,
  );
}
