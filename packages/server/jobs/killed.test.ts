import type { DaybookEntry, IncomingPage, JobState } from '@osier/contract';
import { field, writeIso2709 } from '@osier/core/marc';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fillIfEmpty } from '../../../demo/fill';
import { openStore } from '../store/store';
import { root } from '../testing/running';

const RECORDS = 1600;
const delivery = Buffer.concat(
  Array.from({ length: RECORDS }, (_, i) =>
    writeIso2709({
      leader: '00000nam a2200000 i 4500',
      fields: [
        { tag: '001', value: `kill${i}` },
        { tag: '003', value: 'Test' },
        field(
          '100',
          '1 ',
          'a',
          `Person ${String.fromCharCode(65 + (i % 26))}${i % 40}, Ada,`,
          'e',
          'author.',
        ),
        field('245', '10', 'a', `Book ${i} of many /`),
        field('520', '  ', 'a', 'A long note. '.repeat(60)),
      ],
    }),
  ),
);

interface Server {
  readonly process: ChildProcess;
  readonly address: string;
}

function start(folder: string): Promise<Server> {
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
  return new Promise((resolve, reject) => {
    child.on('exit', (code) => reject(new Error(`The server ended with ${code}.`)));
    child.stdout.on('data', (d: Buffer) => {
      const address = /http:\/\/\S+/.exec(d.toString())?.[0];
      if (address) resolve({ process: child, address });
    });
  });
}
const kill = (s: Server) =>
  new Promise<void>((done) => {
    s.process.removeAllListeners('exit');
    s.process.on('exit', () => done());
    s.process.kill('SIGKILL');
  });

async function client(s: Server) {
  const signed = await fetch(`${s.address}/api/sign-in/demo`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{"person":2}',
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
      await new Promise((r) => setTimeout(r, 5));
    }
  };
  return { ask, until };
}
const ended = (j: JobState) => j.state === 'done' || j.state === 'failed' || j.state === 'cancelled';

test('killed again and again in the middle of reading and accepting: nothing is lost, doubled or half there', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'osier-kill-'));
  await fillIfEmpty(folder);
  let server = await start(folder);
  let { ask, until } = await client(server);
  const taken = await ask<{ delivery: number; job: number }>(
    'POST',
    '/deliveries?name=kill.mrc',
    new Uint8Array(delivery),
  );
  await until(taken.job, (j) => j.done > 200);
  await kill(server);

  server = await start(folder);
  ({ ask, until } = await client(server));
  expect((await until(taken.job, ended)).state).toBe('done');
  const { facets } = await ask<IncomingPage>('GET', `/deliveries/${taken.delivery}/incoming`);
  expect(facets).toMatchObject({ all: RECORDS, waiting: RECORDS });

  const job = await ask<JobState>('POST', `/deliveries/${taken.delivery}/accept`, '{}');
  for (const at of [1, 500, 900]) {
    const seen = await until(job.id, (j) => j.done >= at || ended(j));
    expect(ended(seen)).toBe(false);
    await kill(server);
    server = await start(folder);
    ({ ask, until } = await client(server));
  }
  const done = await until(job.id, ended);
  expect(done).toMatchObject({
    state: 'done',
    done: RECORDS,
    message: expect.stringContaining('Accepted 1,600 records') as string,
  });
  const entries = (await ask<{ rows: DaybookEntry[] }>('GET', '/daybook')).rows.filter(
    (e) => e.act === 'accept',
  );
  expect(entries).toHaveLength(1);

  const undone = await ask<{ entry?: number }>('POST', `/daybook/${done.entry}/undo`, '{}');
  expect(undone.entry).toBeGreaterThan(0);
  await kill(server);

  const store = await openStore(folder);
  const count = async (sql: string) => (await store.row<{ n: number }>(sql))!.n;
  expect(await count('SELECT COUNT(*) AS n FROM records')).toBe(1500);
  expect(await count("SELECT COUNT(*) AS n FROM incoming WHERE state <> 'waiting'")).toBe(0);
  expect(
    await count('SELECT COUNT(*) AS n FROM record_keys WHERE record NOT IN (SELECT id FROM records)'),
  ).toBe(0);
  expect(await count("SELECT COUNT(*) AS n FROM headings WHERE text LIKE 'Person %'")).toBe(0);
  expect(await store.row<Record<string, string>>('PRAGMA integrity_check')).toEqual({
    integrity_check: 'ok',
  });
  await store.close();
  rmSync(folder, { recursive: true });
}, 120_000);

test('SIGTERM ends the server cleanly', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'osier-term-'));
  await fillIfEmpty(folder);
  const server = await start(folder);
  server.process.removeAllListeners('exit');
  const code = await new Promise((done) => {
    server.process.on('exit', done);
    server.process.kill('SIGTERM');
  });
  expect(code).toBe(0);
  rmSync(folder, { recursive: true });
});
