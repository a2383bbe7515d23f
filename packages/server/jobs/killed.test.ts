import type { DaybookEntry, IncomingPage, JobState } from '@osier/contract';
import { field, writeIso2709 } from '@osier/core/marc';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openStore } from '../store/open-store';
import { client, ended, kill, killAll, start } from '../testing/killing';
import { layLibrary } from '../testing/library';

afterAll(killAll);

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

test('killed again and again in the middle of reading and accepting: nothing is lost, doubled or half there', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'osier-kill-'));
  layLibrary(folder);
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

  const undoing = await ask<{ job: number }>('POST', `/daybook/${done.entry}/undo`, '{}');
  const undone = await until(undoing.job, ended);
  expect(undone).toMatchObject({ state: 'done', entry: done.entry! + 1 });
  await kill(server);

  const store = await openStore(folder);
  const count = async (sql: string) => (await store.row<{ n: number }>(sql))!.n;
  expect(await count('SELECT COUNT(*) AS n FROM records')).toBe(1506);
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

test('SIGTERM ends a server that is at work, with a stream open and a file half sent', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'osier-term-'));
  layLibrary(folder);
  const server = await start(folder);
  const { ask, until, cookie } = await client(server);
  const stream = await fetch(`${server.address}/api/live/events`, { headers: { cookie } });
  expect(stream.status).toBe(200);
  const taken = await ask<{ job: number }>('POST', '/deliveries?name=t.mrc', new Uint8Array(delivery));
  const half = connect(Number(new URL(server.address).port), '127.0.0.1');
  half.on('error', () => undefined);
  half.write(
    `POST /api/deliveries?name=half.mrc HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: ${cookie}\r\nContent-Length: 99\r\n\r\n0`,
  );
  await until(taken.job, (j) => j.done > 0 || ended(j));

  server.process.removeAllListeners('exit');
  const gone = once(server.process, 'exit');
  server.process.kill('SIGTERM');
  const late = setTimeout(() => server.process.kill('SIGKILL'), 5000);
  expect(await gone).toEqual([0, null]);
  clearTimeout(late);
  half.destroy();
  rmSync(folder, { recursive: true });
}, 60_000);
