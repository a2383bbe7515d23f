// Installs the packages when they are not there or older than the lock file. Uses nothing but Node.
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const stamp = join(root, 'node_modules', '.osier-lock');

export function run(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: root, stdio: 'inherit', ...options });
    child.on('error', reject);
    child.on('exit', (code, signal) => resolve(code ?? (signal ? 1 : 0)));
  });
}

export async function ensureInstalled() {
  const major = Number(process.versions.node.split('.')[0]);
  if (major < 20) throw new Error(`Osier needs Node 20 or newer; this is ${process.versions.node}.`);
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  process.stdout.write(
    '· Installing packages. SQLite is compiled for this machine, which takes two to four minutes the first time…\n',
  );
  const began = Date.now();
  const beat = setInterval(
    () => process.stdout.write(`  still installing, ${Math.round((Date.now() - began) / 1000)} s\n`),
    20_000,
  );
  const quietly = ['--no-audit', '--no-fund', '--loglevel=error'];
  let code = await run('npm', ['ci', ...quietly]);
  // A registry that lacks a package for some other platform makes npm ci refuse; the same versions install all the same.
  if (code !== 0) code = await run('npm', ['install', '--no-save', ...quietly]);
  clearInterval(beat);
  if (code !== 0)
    throw new Error(
      'The packages could not be installed. What it said stands above; a C++ compiler, make and python3 are needed for SQLite.',
    );
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, lock);
  process.stdout.write(`  done in ${Math.round((Date.now() - began) / 1000)} s\n`);
}
