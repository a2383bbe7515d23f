// `npm run bench`: our speed as a ratio to other libraries in the same run. Nothing here passes or fails.
import { availableParallelism } from 'node:os';
import { ensureInstalled } from './install.mjs';
import { ensureSystemPackages } from './system-packages.mjs';

await ensureInstalled();
ensureSystemPackages();
await (await import('./build.mjs')).ensureBuilt();
await (await import('./bundle.mjs')).bundle(['cli', 'server', 'demo']);
const { convertBench } = await import('../bench/convert.bench.mjs');
const { checkBench } = await import('../bench/check.bench.mjs');
const { importBench } = await import('../bench/import.bench.mjs');
const { areasBench } = await import('../bench/areas.bench.mjs');
const { copiesBench } = await import('../bench/copies.bench.mjs');
const { headingsBench } = await import('../bench/headings.bench.mjs');
const { stocktakeBench } = await import('../bench/stocktake.bench.mjs');
const { withdrawalsBench } = await import('../bench/withdrawals.bench.mjs');
const { neighboursBench } = await import('../bench/neighbours.bench.mjs');
const { findBench } = await import('../bench/find.bench.mjs');
const { recordDeskBench } = await import('../bench/record-desk.bench.mjs');
const { takenByOthers } = await import('../bench/taken.mjs');
console.log(`Node ${process.versions.node}, ${availableParallelism()} processors.\n`);
console.log('| work | against | ours | theirs | ratio | budget |\n|---|---|---|---|---|---|');
for (const bench of [
  convertBench,
  checkBench,
  importBench,
  areasBench,
  findBench,
  recordDeskBench,
  copiesBench,
  headingsBench,
  stocktakeBench,
  withdrawalsBench,
  neighboursBench,
]) {
  const taken = takenByOthers();
  for (const { work, against, ours, theirs, budget, unit = 's' } of await bench()) {
    const shown = (n) => `${n.toFixed(unit === 'MB' ? 0 : unit === 'ms' ? 3 : 2)} ${unit}`;
    console.log(
      `| ${work} | ${against} | ${shown(ours)} | ${shown(theirs)} | ${(ours / theirs).toFixed(2)} | ≤ ${budget.toFixed(2)} |`,
    );
  }
  const part = taken();
  if (part !== null)
    console.log(`| others took of the processors meanwhile | | ${(100 * part).toFixed(0)} in 100 | | | |`);
}
