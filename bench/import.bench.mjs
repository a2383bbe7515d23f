// A delivery taken into a store that holds as many records: read, ten steps of a recipe, matched, accepted, indexed; against
// the bare time of inserting the same rows and index entries through sqlite3.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '../scripts/install.mjs';
import { bundled } from './bundled.mjs';
import { copyToDisk } from './copy-to-disk.mjs';
import { client, settle, start } from './served.mjs';
import { timed } from './timed.mjs';

const RECORDS = Number(process.env.OSIER_BENCH_IMPORT ?? 100_000);
const HELD = Number(process.env.OSIER_BENCH_HELD ?? RECORDS);

export async function importBench() {
  const folder = mkdtempSync(join(tmpdir(), 'osier-bench-'));
  const file = join(folder, 'delivery.mrc');
  await fill(folder, file);
  copyToDisk(join(folder, 'osier.sqlite'), join(folder, 'before.sqlite'));
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
  await settle(folder);
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
  // A server that has just been started answers its first requests slower, with an import beside them or without.
  for (let i = 0; i < 20; i++) for (const path of Object.keys(asked)) await ask('GET', path);
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

/** The bare time, in seconds, of writing what the import wrote; see `bare-insert.mjs`. */
async function bareInsert(folder) {
  await timed(process.execPath, [await bundled('bare-insert'), folder]);
  const { seconds, rows } = JSON.parse(readFileSync(join(folder, 'bare.json'), 'utf8'));
  console.error(`  inserted alone: ${JSON.stringify(rows)}`);
  return seconds;
}
