// `npm run bench`: our speed as a ratio to other libraries in the same run. Nothing here passes or fails.
import { ensureInstalled } from './install.mjs';
import { ensureSystemPackages } from './system-packages.mjs';

await ensureInstalled();
ensureSystemPackages();
await (await import('./bundle.mjs')).bundle(['cli']);
const { convertBench } = await import('../bench/convert.bench.mjs');
console.log('| work | against | ours | theirs | ratio |\n|---|---|---|---|---|');
for (const bench of [convertBench]) {
  const { work, against, ours, theirs } = await bench();
  console.log(
    `| ${work} | ${against} | ${ours.toFixed(2)} s | ${theirs.toFixed(2)} s | ${(ours / theirs).toFixed(2)} |`,
  );
}
