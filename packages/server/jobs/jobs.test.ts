import type { JobState } from '@osier/contract';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { openEmpty } from '../testing/library';
import type { Store } from '../store/store';
import { JobStopped, jobsOf, type Jobs } from './jobs';

let folder: string;
let store: Store;
let jobs: Jobs;
const pause = (ms: number) => new Promise((r) => setTimeout(r, ms));

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'osier-jobs-'));
  store = await openEmpty(folder);
  jobs = jobsOf(store, pino({ level: 'silent' }));
});
afterEach(async () => {
  await Promise.race([jobs.stop(), pause(1000)]);
  await store.close();
  rmSync(folder, { recursive: true });
});

/** Counts to ten, keeping its cursor at every step. */
const counting = (jobsOfStore: Jobs, seen: number[], slow = 0) =>
  jobsOfStore.register('count', async (run) => {
    for (let n = ((run.cursor.n as number | undefined) ?? 0) + 1; n <= 10; n++) {
      if (run.cancelled()) return null;
      await pause(slow);
      await store.write(async (tx) => run.keep({ n }, n, tx));
      seen.push(n);
    }
    return 'Counted to ten.';
  });

test('a job tells how far it is, and ends with its last word', async () => {
  const told: JobState[] = [];
  jobs.events.on('job', (j: JobState) => told.push({ ...j }));
  counting(jobs, []);
  const { id, state } = await jobs.begin('count', 'Counting', 1, { to: 'ten' }, 10);
  expect(state).toBe('waiting');
  await jobs.idle();
  expect(await jobs.state(id)).toMatchObject({
    state: 'done',
    done: 10,
    total: 10,
    message: 'Counted to ten.',
    work: { to: 'ten' },
  });
  expect(told.map((j) => j.done)).toEqual([...told.map((j) => j.done)].sort((a, b) => a - b));
  expect(told.at(-1)!.state).toBe('done');
});

test('a cancelled job stops between chunks and keeps what it has done', async () => {
  const seen: number[] = [];
  counting(jobs, seen, 10);
  const { id } = await jobs.begin('count', 'Counting', 1, {}, 10);
  while (seen.length < 3) await pause(5);
  jobs.cancel(id);
  await jobs.idle();
  const job = (await jobs.state(id))!;
  expect(job.state).toBe('cancelled');
  expect(job.done).toBe(seen.length);
  expect(seen.length).toBeLessThan(10);
});

test('work that throws fails the job with the reason and no other job', async () => {
  jobs.register('bad', () => Promise.reject(new JobStopped('The file is gone.')));
  jobs.register('worse', () => Promise.reject(new Error('ENOENT /srv/osier/secret: SELECT * FROM people')));
  const worse = await jobs.begin('worse', 'Worse', 1, {});
  counting(jobs, []);
  const [bad, good] = [
    await jobs.begin('bad', 'Bad', 1, {}),
    await jobs.begin('count', 'Counting', 1, {}, 10),
  ];
  await jobs.idle();
  expect(await jobs.state(bad.id)).toMatchObject({ state: 'failed', message: 'The file is gone.' });
  expect((await jobs.state(good.id))!.state).toBe('done');
  // What was not written for a person is not told to one.
  expect((await jobs.state(worse.id))!.message).not.toMatch(/srv|SELECT|ENOENT/);
});

test('work during which the server ended twice without its coming further is parked', async () => {
  let begun = 0;
  const never = (of: Jobs) => of.register('never', () => (begun++, new Promise<null>(() => undefined)));
  never(jobs);
  const { id } = await jobs.begin('never', 'Never', 1, {});
  await pause(20);
  for (let restart = 0; restart < 3; restart++) {
    const next = jobsOf(store, pino({ level: 'silent' }));
    never(next);
    await next.resume();
    await pause(20);
  }
  expect(begun).toBe(2);
  expect(await jobsOf(store, pino({ level: 'silent' })).resume()).toBe(0);
  const [row] = await store.rows<{ state: string; message: string }>(
    'SELECT state, message FROM jobs WHERE id = :id',
    { id },
  );
  expect(row).toMatchObject({ state: 'failed', message: expect.stringContaining('begun twice') as string });
});

test('what a stopped server left is taken up behind its cursor, nothing twice', async () => {
  const seen: number[] = [];
  counting(jobs, seen, 10);
  const { id } = await jobs.begin('count', 'Counting', 1, {}, 10);
  while (seen.length < 4) await pause(5);
  await jobs.stop();
  const next = jobsOf(store, pino({ level: 'silent' }));
  counting(next, seen);
  expect(await next.resume()).toBe(1);
  await next.idle();
  expect(seen).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10]);
  expect((await next.state(id))!.state).toBe('done');
  expect(await next.resume()).toBe(0);
});
