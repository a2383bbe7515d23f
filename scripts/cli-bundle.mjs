// Builds the command line when its sources have changed, and only then. Each state of the sources has a folder of its own, put in place
// by a rename, so that calls side by side neither wait for each other nor take each other's files away.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const dist = join(root, 'packages/cli/dist');
const SOURCES = ['packages/core', 'packages/cli', 'scripts/cli-bundle.mjs', 'package-lock.json'];
const PASSED_OVER = new Set(['node_modules', 'dist', 'testing']);
/** Milliseconds after which a build that did not end is taken for dead, and after which an old one is taken away. */
const [DEAD, OLD] = [60_000, 3_600_000];

function stateOf(path, hash) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return void hash.update(`${path} ${stat.size} ${stat.mtimeMs}\n`);
  for (const name of readdirSync(path).sort())
    if (!PASSED_OVER.has(name) && !/\.test\.tsx?$|\.md$/.test(name)) stateOf(join(path, name), hash);
}

/** The path of the built command line. */
export async function ensureCli() {
  const hash = createHash('sha256');
  for (const source of SOURCES) stateOf(join(root, source), hash);
  const folder = join(dist, hash.digest('hex').slice(0, 16));
  const script = join(folder, 'osier.mjs');
  if (!existsSync(script)) await builtOnce(folder, script);
  return script;
}

async function builtOnce(folder, script) {
  mkdirSync(dist, { recursive: true });
  const lock = `${folder}.lock`;
  for (;;) {
    try {
      mkdirSync(lock);
      break;
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
    }
    await new Promise((r) => setTimeout(r, 50));
    if (existsSync(script)) return;
    const began = statSync(lock, { throwIfNoEntry: false })?.mtimeMs;
    if (began !== undefined && Date.now() - began > DEAD) rmSync(lock, { recursive: true, force: true });
  }
  try {
    if (!existsSync(script)) await build(folder);
  } finally {
    rmSync(lock, { recursive: true, force: true });
  }
}

async function build(folder) {
  const { build: bundle } = await import('esbuild');
  const unfinished = `${folder}.${process.pid}`;
  try {
    // In parts, so that a conversion does not load what only the checks need.
    await bundle({
      absWorkingDir: root,
      entryPoints: { osier: join(root, 'packages/cli/main.ts') },
      outdir: unfinished,
      outExtension: { '.js': '.mjs' },
      bundle: true,
      splitting: true,
      chunkNames: 'part-[hash]',
      platform: 'node',
      target: 'node20',
      format: 'esm',
      sourcemap: true,
      logLevel: 'warning',
    });
    renameSync(unfinished, folder);
  } finally {
    rmSync(unfinished, { recursive: true, force: true });
  }
  for (const name of readdirSync(dist)) {
    const path = join(dist, name);
    if (path !== folder && Date.now() - (statSync(path, { throwIfNoEntry: false })?.mtimeMs ?? 0) > OLD)
      rmSync(path, { recursive: true, force: true });
  }
}
