// Runs a command and measures it: seconds, and the most memory it held where /usr/bin/time is there to say.
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from '../scripts/install.mjs';

export const osier = (...args) => [process.execPath, [join(root, 'scripts/osier.mjs'), ...args]];

/** Seconds and peak resident megabytes of a command whose output is thrown away; `env` is what it is told beside what this process is. */
export function timed(command, args, env = {}) {
  const began = performance.now();
  const child = spawn(command, args, {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, ...env },
  });
  let peak = 0;
  // The peak of a process that ends is gone with it; so it is asked for along the way.
  const asking = setInterval(() => {
    try {
      const said = /VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'));
      if (said) peak = Math.max(peak, Number(said[1]) / 1024);
    } catch {
      // It has ended.
    }
  }, 25);
  return new Promise((resolve, reject) => {
    child.on('error', reject);
    child.on('exit', (code) => {
      clearInterval(asking);
      if (code !== 0) reject(new Error(`${command} ended with ${code}`));
      else resolve({ seconds: (performance.now() - began) / 1000, peak });
    });
  });
}

/** The best of several runs, taken in turn so that a slow moment of the machine meets all alike. */
export async function bestOf(runs, commands) {
  const best = commands.map(() => ({ seconds: Infinity, peak: 0 }));
  for (let i = 0; i < runs; i++)
    for (const [k, [command, args]] of commands.entries()) {
      const { seconds, peak } = await timed(command, args);
      best[k] = { seconds: Math.min(best[k].seconds, seconds), peak: Math.max(best[k].peak, peak) };
    }
  return best;
}

/** Milliseconds that some work takes. */
export async function took(work) {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

/** What 95 of a hundred measurements do not exceed. */
export const p95 = (times) => times.toSorted((a, b) => a - b)[Math.ceil(times.length * 0.95) - 1];
