// A delivery taken into a store that holds as many records: read, ten steps of a recipe, matched, accepted, indexed; against
// the bare time of inserting the same rows and index entries through sqlite3.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sqlite3 from 'sqlite3';
import { root } from '../scripts/install.mjs';
import { bundled } from './bundled.mjs';
import { client, start } from './served.mjs';
import { timed } from './timed.mjs';

const RECORDS = Number(process.env.OSIER_BENCH_IMPORT ?? 100_000);
const HELD = Number(process.env.OSIER_BENCH_HELD ?? RECORDS);

export async function importBench() {
  const folder = mkdtempSync(join(tmpdir(), 'osier-bench-'));
  const file = join(folder, 'delivery.mrc');
  await fill(folder, file);
  const server = await start(folder);
  const { seconds, search, open, recipe, delivery } = await importFile(server, file);
  const peak = peakOf(server);
  server.process.kill('SIGKILL');
  await server.ended;
  const bare = await bareInsert(folder);
  const again = await start(folder);
  const back = await takeBack(again, delivery);
  const backPeak = peakOf(again);
  again.process.kill('SIGKILL');
  await again.ended;
  rmSync(folder, { recursive: true });
  const work = `import ${RECORDS.toLocaleString('en-GB')} records into a store of ${HELD.toLocaleString('en-GB')}: read, ${recipe} recipe steps, match, accept, index`;
  return [
    { work, against: 'inserting the same rows and index entries', ours: seconds, theirs: bare, budget: 2.5 },
    { work: 'the same: peak memory', against: 'the budget', ours: peak, theirs: 600, budget: 1, unit: 'MB' },
    {
      work: 'the same delivery taken back whole',
      against: 'inserting the same rows and index entries',
      ours: back,
      theirs: bare,
      budget: 4,
    },
    {
      work: 'taking it back: peak memory',
      against: 'the budget',
      ours: backPeak,
      theirs: 600,
      budget: 1,
      unit: 'MB',
    },
    {
      work: 'a search while it runs, p95',
      against: 'the budget',
      ours: search,
      theirs: 100,
      budget: 1,
      unit: 'ms',
    },
    {
      work: 'opening a record while it runs, p95',
      against: 'the budget',
      ours: open,
      theirs: 60,
      budget: 1,
      unit: 'ms',
    },
  ];
}

async function fill(folder, file) {
  const bundle = await bundled('import-fill');
  await timed(process.execPath, [bundle, folder, file, String(RECORDS), String(HELD)]);
}

async function importFile(server, file) {
  const { ask, until } = await client(server);
  const steps = JSON.parse(readFileSync(join(root, 'bench/ten-steps.json'), 'utf8'));
  const { id } = await ask('POST', '/recipes', { name: 'Ten steps', steps });
  const [sheet] = await ask('GET', '/supplier-sheets');
  await ask('PUT', `/supplier-sheets/${sheet.id}`, {
    version: sheet.version,
    sheet: {
      ...sheet.sheet,
      files: ['delivery*'],
      organisations: [],
      recipe: String(id),
      actions: { one: 'skip', several: 'skip', none: 'add' },
      mapping: { ...sheet.sheet.mapping, tag: '' },
    },
  });
  const asked = { '/records?q=willow': [], '/records/7': [] };
  let asking = true;
  const page = (async () => {
    while (asking)
      for (const [path, times] of Object.entries(asked)) {
        const began = performance.now();
        await ask('GET', path);
        times.push(performance.now() - began);
        await new Promise((r) => setTimeout(r, 150));
      }
  })();
  const began = performance.now();
  const taken = await ask('POST', '/deliveries?name=delivery.mrc', readFileSync(file));
  await until(taken.job);
  console.error(`  read and matched after ${((performance.now() - began) / 1000).toFixed(1)} s`);
  const job = await ask('POST', `/deliveries/${taken.delivery}/accept`, {});
  await until(job.id);
  const seconds = (performance.now() - began) / 1000;
  asking = false;
  await page;
  const [search, open] = Object.values(asked).map(p95);
  return { seconds, search, open, recipe: steps.length, delivery: taken.delivery };
}

async function takeBack(server, delivery) {
  const { ask, until } = await client(server);
  const began = performance.now();
  const job = await ask('POST', `/deliveries/${delivery}/take-back`, {});
  await until(job.id);
  return (performance.now() - began) / 1000;
}

/** The most memory a server has used so far, in MB. */
const peakOf = (server) =>
  Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${server.process.pid}/status`, 'utf8'))[1]) / 1024;

const p95 = (times) => times.sort((a, b) => a - b)[Math.floor(times.length * 0.95)];

/** The rows and index entries that the import made, inserted into an empty database of the same shape. */
async function bareInsert(folder) {
  const source = await open(join(folder, 'osier.sqlite'));
  const target = await open(join(folder, 'bare.sqlite'));
  await target.exec('PRAGMA journal_mode = WAL; PRAGMA synchronous = NORMAL; PRAGMA cache_size = -65536');
  // The tables that an index of words keeps for itself come with it.
  const shape = await source.all(
    `SELECT sql FROM sqlite_master m WHERE sql IS NOT NULL AND name NOT LIKE 'sqlite_%' AND name <> 'SequelizeMeta'
       AND NOT EXISTS (SELECT 1 FROM sqlite_master v WHERE v.sql LIKE 'CREATE VIRTUAL TABLE%' AND m.name LIKE v.name || '_%' AND m.type = 'table')`,
  );
  for (const { sql } of shape) await target.exec(sql);
  const from = (await source.all('SELECT MIN(record) AS id FROM incoming WHERE record IS NOT NULL'))[0].id;
  const tables = [
    ['records', `SELECT * FROM records WHERE id >= ${from}`],
    ['record_keys', `SELECT * FROM record_keys WHERE record >= ${from}`],
    ['headings', 'SELECT * FROM headings WHERE id >= 1000000'],
    ['heading_keys', 'SELECT * FROM heading_keys WHERE heading >= 1000000'],
    ['incoming', 'SELECT * FROM incoming'],
    ['incoming_fields', 'SELECT * FROM incoming_fields'],
    ['incoming_read', 'SELECT * FROM incoming_read'],
  ];
  let spent = 0;
  const put = async (table, rows) => {
    if (rows.length === 0) return;
    const columns = Object.keys(rows[0]);
    const began = performance.now();
    await target.exec('BEGIN');
    const statement = await target.prepare(
      `INSERT INTO ${table} (${columns.join(', ')}) VALUES (${columns.map(() => '?').join(', ')})`,
    );
    let last;
    for (const row of rows) last = statement.run(columns.map((c) => row[c]));
    await last;
    await statement.finalize();
    await target.exec('COMMIT');
    spent += performance.now() - began;
  };
  for (const [table, sql] of tables)
    for (let offset = 0; ; offset += 5000) {
      const rows = await source.all(`${sql} LIMIT 5000 OFFSET ${offset}`);
      await put(table, rows);
      if (rows.length < 5000) break;
    }
  // The words are not kept in readable form, so that they are taken from the same fields again.
  for (let offset = 0; ; offset += 5000) {
    const rows = await source.all(
      `SELECT id, value FROM records WHERE id >= ${from} LIMIT 5000 OFFSET ${offset}`,
    );
    await put(
      'record_words',
      rows.map(({ id, value }) => ({ rowid: id, ...wordsOf(JSON.parse(value)) })),
    );
    if (rows.length < 5000) break;
  }
  await source.close();
  await target.close();
  return spent / 1000;
}

function wordsOf({ fields }) {
  const of = (pattern) =>
    fields
      .filter((f) => f.subfields && pattern.test(f.tag))
      .flatMap((f) => f.subfields.map((s) => s.value))
      .join(' ')
      .toLowerCase();
  return { title: of(/^245$/), name: of(/^[17]00$/), subject: of(/^6/), rest: of(/^(020|082|264|300|5..)$/) };
}

/** The sqlite3 driver with promises; statements that are run go on without waiting. */
function open(path) {
  const promise = (act) =>
    new Promise((resolve, reject) => act((error, result) => (error ? reject(error) : resolve(result))));
  return new Promise((resolve, reject) => {
    const db = new sqlite3.Database(path, (error) => {
      if (error) return reject(error);
      resolve({
        all: (sql) => promise((done) => db.all(sql, done)),
        exec: (sql) => promise((done) => db.exec(sql, done)),
        close: () => promise((done) => db.close(done)),
        prepare: (sql) =>
          new Promise((ready, fail) => {
            const statement = db.prepare(sql, (e) =>
              e
                ? fail(e)
                : ready({
                    run: (values) => promise((done) => statement.run(values, done)),
                    finalize: () => promise((done) => statement.finalize(done)),
                  }),
            );
          }),
      });
    });
  });
}
