// Builds what runs: the web application, and the bundles for Node. Does nothing when no source has changed.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensureInstalled, root } from './install.mjs';
import { step } from './say.mjs';

const SOURCES = ['packages', 'demo', 'scripts', 'package-lock.json'];
const stamp = join(root, '.cache', 'built');

function hashSources() {
  const hash = createHash('sha256');
  const walk = (path) => {
    const stat = statSync(path);
    if (!stat.isDirectory()) return void hash.update(`${path} ${stat.size} ${stat.mtimeMs}`);
    for (const name of readdirSync(path).sort())
      if (!['node_modules', 'dist', 'files'].includes(name)) walk(join(path, name));
  };
  for (const source of SOURCES) walk(join(root, source));
  return hash.digest('hex');
}

export async function ensureBuilt() {
  await ensureInstalled();
  const now = hashSources();
  if (
    existsSync(stamp) &&
    readFileSync(stamp, 'utf8') === now &&
    existsSync(join(root, 'packages/web/dist/index.html'))
  )
    return;
  await step('Building the server', async () => (await import('./bundle.mjs')).bundle());
  await step('Building the web application', async () => {
    const { build } = await import('vite');
    await build({
      root: join(root, 'packages/web'),
      logLevel: 'warn',
      configFile: join(root, 'packages/web/vite.config.ts'),
    });
  });
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, now);
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await ensureBuilt();
