// Starts processes that belong together and ends them together.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root } from './install.mjs';

/** A heap that is told its limit is tidied before it grows; long work stays within a gigabyte with it. */
export const NODE_FLAGS = ['--max-old-space-size=1024'];
/**
 * What glibc is told: threads share two heaps. By itself it keeps one for each, as large as it once was, together some 400 MB after comparing a
 * million names. Other C libraries do not look at it.
 */
export const MEMORY = { MALLOC_ARENA_MAX: '2' };

export function serve(processes) {
  const children = processes.map(({ script, env }) =>
    spawn(process.execPath, [...NODE_FLAGS, join(root, script)], {
      cwd: root,
      stdio: 'inherit',
      env: { ...MEMORY, ...process.env, OSIER_ROOT: root, ...env },
    }),
  );
  let ending = false;
  const end = (code) => {
    if (ending) return;
    ending = true;
    for (const c of children) c.kill('SIGTERM');
    Promise.all(
      children.map((c) => (c.exitCode !== null || c.signalCode ? null : new Promise((r) => c.on('exit', r)))),
    ).then(() => process.exit(code));
  };
  for (const c of children) c.on('exit', (code) => end(code ?? 1));
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => end(0));
}
