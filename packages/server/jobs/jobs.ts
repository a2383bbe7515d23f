import type { JobState } from '@osier/contract';
import { EventEmitter } from 'node:events';
import { ProblemError } from '../http/problem';
import { ChangedSince } from '../store/conflict';
import type { Transaction } from '../store/database';
import type { Logger } from 'pino';
import type { Store } from '../store/store';

/** What a job's work is given. */
export interface JobRun {
  readonly id: number;
  readonly person: number;
  readonly work: Record<string, unknown>;
  /** What the last commit of this job left, or {} at the start. */
  readonly cursor: Record<string, unknown>;
  /** Keeps the cursor, in the transaction of the chunk it belongs to. */
  keep(cursor: Record<string, unknown>, done: number, tx: Transaction, entry?: number): Promise<void>;
  /** Tells how far it is, without keeping a cursor. */
  tell(done: number, total: number | null): void;
  readonly cancelled: () => boolean;
  /** The server stops: the work is taken up at the next start. */
  readonly stopping: () => boolean;
}
/** Does the work from the cursor on; the text it gives is the job's last word. */
export type JobWork = (run: JobRun) => Promise<string | null>;

interface Row {
  id: number;
  kind: string;
  title: string;
  state: JobState['state'];
  person: number;
  work: string;
  cursor: string;
  done: number;
  total: number | null;
  message: string | null;
  entry: number | null;
  started: string;
  begun: number;
}

const MOST_BEGUN = 2;

/** What went wrong, as a person is told it: sentences that were written for people, and nothing of the insides. */
export function lastWord(error: unknown): string {
  if (error instanceof ProblemError) return error.problem.detail;
  if (error instanceof ChangedSince) return `Something has changed since. ${lastWord(error.cause)}`;
  if (error instanceof JobStopped) return error.message;
  if (/SQLITE_FULL|ENOSPC|disk is full/.test(String(error)))
    return 'The disk is full. Make room and start this once more; what was done until then stays.';
  return 'Something went wrong on the server, and the work stopped. What was done until then stays and can be undone.';
}

/** Work that cannot go on, with the sentence that says why. */
export class JobStopped extends Error {}

/** Long work: kept in the store, told as it goes, taken up again after the server was killed. */
export function jobsOf(store: Store, log: Logger) {
  const kinds = new Map<string, JobWork>();
  const events = new EventEmitter().setMaxListeners(0);
  const live = new Map<number, JobState & { began: number; from: number }>();
  const cancelling = new Set<number>();
  const running = new Set<Promise<void>>();
  let stopping = false;

  const stateOf = (row: Row): JobState => ({
    id: row.id,
    kind: row.kind,
    title: row.title,
    state: row.state,
    done: row.done,
    total: row.total,
    rate: null,
    secondsLeft: null,
    message: row.message,
    work: JSON.parse(row.work) as Record<string, unknown>,
    entry: row.entry,
  });
  const publish = (job: JobState) => {
    const { began: _began, from: _from, ...plain } = job as JobState & { began?: number; from?: number };
    events.emit('job', plain);
  };
  const progress = (id: number, done: number, total: number | null) => {
    const job = live.get(id);
    if (!job) return;
    const seconds = (Date.now() - job.began) / 1000;
    job.done = done;
    job.total = total ?? job.total;
    job.rate = seconds > 0.5 ? (done - job.from) / seconds : null;
    job.secondsLeft = job.rate && job.total !== null ? Math.max(0, (job.total - done) / job.rate) : null;
    publish(job);
  };

  async function run(row: Row): Promise<void> {
    const job = { ...stateOf(row), state: 'running' as JobState['state'], began: Date.now(), from: row.done };
    live.set(row.id, job);
    await store.reserve((tx) =>
      store.run("UPDATE jobs SET state = 'running', begun = begun + 1 WHERE id = :id", { id: row.id }, tx),
    );
    publish(job);
    let moved = false;
    /** It has come further than when it was begun, so that beginning it is no matter of hope. */
    const moves = () => {
      if (moved) return;
      moved = true;
      void store
        .reserve((tx) => store.run('UPDATE jobs SET begun = 0 WHERE id = :id', { id: row.id }, tx))
        .catch(() => undefined);
    };
    let state: JobState['state'] = 'done';
    let message: string | null = null;
    try {
      message = await kinds.get(row.kind)!({
        id: row.id,
        person: row.person,
        work: job.work,
        cursor: JSON.parse(row.cursor) as Record<string, unknown>,
        cancelled: () => stopping || cancelling.has(row.id),
        stopping: () => stopping,
        tell: (done, total) => {
          if (done > 0) moves();
          progress(row.id, done, total);
        },
        keep: async (cursor, done, tx, entry) => {
          await store.run(
            'UPDATE jobs SET cursor = :cursor, done = :done, total = :total, entry = COALESCE(:entry, entry), begun = 0 WHERE id = :id',
            { cursor: JSON.stringify(cursor), done, total: job.total, entry: entry ?? null, id: row.id },
            tx,
          );
          if (entry !== undefined) job.entry = entry;
          progress(row.id, done, job.total);
        },
      });
      if (stopping) return;
      if (cancelling.has(row.id)) state = 'cancelled';
    } catch (error) {
      if (stopping) return;
      log.error({ err: error, job: row.id, kind: row.kind }, 'job failed');
      state = 'failed';
      message = lastWord(error);
    }
    live.delete(row.id);
    cancelling.delete(row.id);
    await store.write((tx) =>
      store.run(
        'UPDATE jobs SET state = :state, message = :message, done = :done, total = :total WHERE id = :id',
        { state, message, done: job.done, total: job.total, id: row.id },
        tx,
      ),
    );
    publish({ ...job, state, message, secondsLeft: null });
  }

  const start = (row: Row) => {
    const promise = run(row).finally(() => running.delete(promise));
    running.add(promise);
  };

  /** Work during which the server ended twice without its having come any further is not begun a third time. */
  const park = (row: Row) =>
    store.write((tx) =>
      store.run(
        "UPDATE jobs SET state = 'failed', message = :message WHERE id = :id",
        {
          id: row.id,
          message:
            'This was begun twice, and the server ended each time before it came further. It was not begun again; look at what it works on, then start it anew.',
        },
        tx,
      ),
    );

  return {
    events,
    register: (kind: string, work: JobWork) => void kinds.set(kind, work),
    async begin(
      kind: string,
      title: string,
      person: number,
      work: Record<string, unknown>,
      total: number | null = null,
    ): Promise<JobState> {
      const row = await store.write(async (tx) => {
        await store.run(
          "INSERT INTO jobs (kind, title, state, person, work, cursor, done, total, started) VALUES (:kind, :title, 'waiting', :person, :work, '{}', 0, :total, :started)",
          { kind, title, person, work: JSON.stringify(work), total, started: new Date().toISOString() },
          tx,
        );
        return (await store.row<Row>('SELECT * FROM jobs WHERE id = last_insert_rowid()', {}, tx))!;
      });
      start(row);
      return stateOf(row);
    },
    /** Takes up what a killed server left unfinished. */
    async resume(): Promise<number> {
      const rows = await store.rows<Row>(
        "SELECT * FROM jobs WHERE state IN ('running', 'waiting') ORDER BY id",
      );
      for (const row of rows) await (row.begun >= MOST_BEGUN ? park(row) : start(row));
      return rows.length;
    },
    cancel: (id: number) => void cancelling.add(id),
    state: async (id: number): Promise<JobState | null> => {
      const job = live.get(id);
      if (job) return job;
      const row = await store.row<Row>('SELECT * FROM jobs WHERE id = :id', { id });
      return row ? stateOf(row) : null;
    },
    running: (): JobState[] => [...live.values()],
    /** Lets running chunks end and starts no more; what is left is taken up at the next start. */
    async stop(): Promise<void> {
      stopping = true;
      await store
        .reserve((tx) => store.run("UPDATE jobs SET begun = 0 WHERE state = 'running'", {}, tx))
        .catch(() => undefined);
      await Promise.allSettled([...running]);
    },
    idle: async (): Promise<void> => void (await Promise.allSettled([...running])),
  };
}
export type Jobs = ReturnType<typeof jobsOf>;
