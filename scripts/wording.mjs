// Prints every text of the interface, area by area, and the names of checks, steps and acts: to be read in one go.
// `npm run wording`
import { build } from 'esbuild';
import { readdirSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { pathToFileURL, fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const web = join(root, 'packages/web');
const areas = readdirSync(join(web, 'areas')).map((area) => [area, join(web, 'areas', area, 'words.ts')]);
const sources = [
  ['shell', join(web, 'shell/words.ts')],
  ...areas,
  ['setup_neighbours', join(web, 'areas/setup/neighbour-words.ts')],
  ['parts', join(web, 'parts/words.ts')],
];

const entry = [
  ...sources.map(([name, path]) => `export * as ${name} from ${JSON.stringify(path)};`),
  `export { CHECKS } from '@osier/core/checks';`,
  `export { STEP_KINDS } from '@osier/core/recipes';`,
  `export { ACT_KINDS } from '@osier/core/acts';`,
].join('\n');
const outfile = join(root, '.cache/wording.mjs');
await build({
  stdin: { contents: entry, resolveDir: root, loader: 'ts' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  logLevel: 'warning',
  outfile,
});
const all = await import(pathToFileURL(outfile).href);
rmSync(outfile);

/** A text with what is put into it as ‹name›. */
const told = (text) =>
  typeof text === 'string'
    ? text
    : text(
        ...(/\(([^)]*)\)/
          .exec(text.toString())?.[1]
          .split(',')
          .map((name) => `‹${name.trim().replace(/\d+$/, '')}›`) ?? []),
      );

for (const [name] of sources) {
  console.log(`\n${name}`);
  for (const text of Object.values(all[name]).flatMap((words) => Object.values(words)))
    console.log(`  ${told(text).trim()}`);
}
console.log('\nchecks');
for (const c of all.CHECKS) console.log(`  ${c.group}: ${c.title}`);
console.log('\nsteps of recipes');
for (const s of all.STEP_KINDS) console.log(`  ${s.name}`);
console.log('\nacts');
for (const a of Object.values(all.ACT_KINDS)) console.log(`  ${a.name}`);
