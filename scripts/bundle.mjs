// Bundles the server, its worker, the stand-ins, the command line and the demo generator for Node.
import { build } from 'esbuild';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { dirname, join } from 'node:path';
import { ensureCli } from './cli-bundle.mjs';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');

const packages = ['core', 'contract', 'server', 'standins', 'cli'];
const external = packages.flatMap((p) =>
  Object.keys(JSON.parse(readFileSync(join(root, 'packages', p, 'package.json'), 'utf8')).dependencies ?? {}),
);

const ENTRIES = {
  'packages/server/dist/main': 'packages/server/main.ts',
  'packages/server/dist/settle': 'packages/server/settle.ts',
  'packages/server/dist/read-worker': 'packages/server/deliveries/read-worker.ts',
  'packages/server/dist/pool-worker': 'packages/server/workers/pool-worker.ts',
  'packages/server/dist/label-worker': 'packages/server/labels/label-worker.ts',
  'packages/server/dist/address-process': 'packages/server/catalogue/address-process.ts',
  'packages/standins/dist/main': 'packages/standins/main.ts',
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
  await build({ ...options, entryPoints: points(entries) });
  if (!only || only.includes('cli')) await ensureCli();
}
