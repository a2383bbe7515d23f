import type { JobState } from '@osier/contract';
import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { root } from './running';

/** A server in a process of its own, so that it can be killed. */
export interface Server {
  readonly process: ChildProcess;
  readonly address: string;
}

const started = new Set<ChildProcess>();
/** Ends what a test that failed left running. */
export const killAll = (): void => started.forEach((c) => void c.kill('SIGKILL'));

export function start(folder: string): Promise<Server> {
  const child = spawn(process.execPath, [join(root, 'packages/server/dist/main.mjs')], {
    env: {
      ...process.env,
      OSIER_ROOT: root,
      OSIER_DATA: folder,
      OSIER_PORT: '0',
      OSIER_DEMO: '1',
      OSIER_LOG: 'silent',
    },
  });
  started.add(child);
  return new Promise((resolve, reject) => {
    child.on('exit', (code) => reject(new Error(`The server ended with ${code}.`)));
    child.stdout.on('data', (d: Buffer) => {
      const address = /http:\/\/\S+/.exec(d.toString())?.[0];
      if (address) resolve({ process: child, address });
    });
  });
}
export const kill = (s: Server) =>
  new Promise<void>((done) => {
    s.process.removeAllListeners('exit');
    s.process.on('exit', () => done());
    s.process.kill('SIGKILL');
  });

/** Somebody who is signed in; the cataloguer where nobody else is named. */
export async function client(s: Server, person = 2) {
  const signed = await fetch(`${s.address}/api/sign-in/demo`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ person }),
  });
  const cookie = signed.headers.get('set-cookie')!.split(';')[0]!;
  const ask = async <T>(method: string, path: string, body?: BodyInit) =>
    (await (
      await fetch(`${s.address}/api${path}`, {
        method,
        headers: { cookie, ...(typeof body === 'string' ? { 'content-type': 'application/json' } : {}) },
        body,
      })
    ).json()) as T;
  const until = async (id: number, enough: (j: JobState) => boolean) => {
    for (;;) {
      const job = await ask<JobState>('GET', `/jobs/${id}`);
      if (enough(job)) return job;
      await new Promise((r) => setTimeout(r, 15));
    }
  };
  return { ask, until, cookie };
}
export const ended = (j: JobState) => j.state === 'done' || j.state === 'failed' || j.state === 'cancelled';
