// Bundles the server, its worker, the stand-ins, the command line and the demo generator for Node.
import { build } from 'esbuild';
import { readFileSync, rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { dirname, join } from 'node:path';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');

const packages = ['core', 'contract', 'server', 'standins', 'cli'];
const external = packages.flatMap((p) =>
  Object.keys(JSON.parse(readFileSync(join(root, 'packages', p, 'package.json'), 'utf8')).dependencies ?? {}),
);

const ENTRIES = {
  'packages/server/dist/main': 'packages/server/main.ts',
  'packages/server/dist/read-worker': 'packages/server/deliveries/read-worker.ts',
  'packages/standins/dist/main': 'packages/standins/main.ts',
  'packages/cli/dist/osier': 'packages/cli/main.ts',
  'demo/dist/main': 'demo/main.ts',
};

const options = {
  outdir: root,
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  sourcemap: true,
  external,
  logLevel: 'warning',
};

export async function bundle(only) {
  const entries = Object.entries(ENTRIES).filter(([out]) => !only || only.some((o) => out.includes(o)));
  const points = (of) => Object.fromEntries(of.map(([out, source]) => [out, join(root, source)]));
  const isCommand = ([out]) => out.startsWith('packages/cli');
  await build({ ...options, entryPoints: points(entries.filter((e) => !isCommand(e))) });
  if (!entries.some(isCommand)) return;
  // The command line comes in parts, so that a conversion does not load what only the checks need.
  rmSync(join(root, 'packages/cli/dist'), { recursive: true, force: true });
  await build({
    ...options,
    // Taken in, it is started once a thread and not looked through for its exports first.
    external: external.filter((p) => p !== 'saxes'),
    entryPoints: points(entries.filter(isCommand)),
    splitting: true,
    chunkNames: 'packages/cli/dist/part-[hash]',
  });
}
