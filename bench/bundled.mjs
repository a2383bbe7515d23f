// Some benches are written with the project's own TypeScript; they are bundled before they run.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { root } from '../scripts/install.mjs';

/** Bundles `bench/NAME.mjs` for Node and gives the path of the bundle. */
export async function bundled(name) {
  const folder = join(root, 'node_modules/.cache');
  mkdirSync(folder, { recursive: true });
  const outfile = join(folder, `osier-${name}.mjs`);
  await build({
    entryPoints: [join(root, `bench/${name}.mjs`)],
    bundle: true,
    platform: 'node',
    format: 'esm',
    outfile,
    external: ['piscina', 'sqlite3', 'sequelize', 'umzug', 'pino'],
    logLevel: 'error',
  });
  return outfile;
}
