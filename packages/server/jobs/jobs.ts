import type { JobState } from '@osier/contract';
import { EventEmitter } from 'node:events';
import { ProblemError } from '../http/problem';
import { ChangedSince } from '../store/conflict';
import type { Transaction } from '../store/database';
import type { Logger } from 'pino';
import { asOwnWork } from '../store/feed';
import { keptJson } from '../store/kept-json';
import type { JobColumns } from '../store/models';
import type { Store } from '../store/store';
import { countBegun, keepCursor } from './queries';

/** Who is named for work that nobody asked for. */
export const OSIER = 0;

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

const MOST_BEGUN = 2;
const PARKED =
  'This was begun twice, and the server ended each time before it came further. It was not begun again; look at what it works on, then start it anew.';

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

/** A job that runs: when it began, and how much was done before. */
type LiveJob = { -readonly [K in keyof JobState]: JobState[K] } & {
  readonly began: number;
  readonly from: number;
};

/** Long work: kept in the store, told as it goes, taken up again after the server was killed. */
export function jobsOf(store: Store, log: Logger) {
  const kinds = new Map<string, JobWork>();
  const events = new EventEmitter().setMaxListeners(0);
  const live = new Map<number, LiveJob>();
  const table = store.table('jobs');
  const cancelling = new Set<number>();
  const running = new Set<Promise<void>>();
  let stopping = false;

  const stateOf = (row: JobColumns): JobState => ({
    id: row.id,
    kind: row.kind,
    title: row.title,
    state: row.state,
    done: row.done,
    total: row.total,
    rate: null,
    secondsLeft: null,
    message: row.message,
    work: keptJson<Record<string, unknown>>(row.work),
    entry: row.entry,
    person: row.person,
  });
  const plain = ({ began: _began, from: _from, ...job }: LiveJob): JobState => job;
  const publish = (job: LiveJob) => void events.emit('job', plain(job));
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

  async function run(row: JobColumns): Promise<void> {
    const job: LiveJob = { ...stateOf(row), state: 'running', began: Date.now(), from: row.done };
    live.set(row.id, job);
    await store.reserve((tx) => countBegun(store, row.id, tx));
    publish(job);
    let moved = false;
    /** It has come further than when it was begun, so that beginning it is no matter of hope. */
    const moves = () => {
      if (moved) return;
      moved = true;
      void store.reserve((tx) => table.update({ begun: 0 }, { id: row.id }, tx)).catch(() => undefined);
    };
    let state: JobState['state'] = 'done';
    let message: string | null = null;
    try {
      message = await kinds.get(row.kind)!({
        id: row.id,
        person: row.person,
        work: job.work,
        cursor: keptJson<Record<string, unknown>>(row.cursor),
        cancelled: () => stopping || cancelling.has(row.id),
        stopping: () => stopping,
        tell: (done, total) => {
          if (done > 0) moves();
          progress(row.id, done, total);
        },
        keep: async (cursor, done, tx, entry) => {
          const kept = { id: row.id, cursor: JSON.stringify(cursor), done, total: job.total };
          await keepCursor(store, { ...kept, entry: entry ?? null }, tx);
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
    const { done, total } = job;
    await store.write((tx) => table.update({ state, message, done, total }, { id: row.id }, tx));
    publish({ ...job, state, message, secondsLeft: null });
  }

  const start = (row: JobColumns) => {
    const promise = asOwnWork(() => run(row)).finally(() => running.delete(promise));
    running.add(promise);
  };

  /** Work during which the server ended twice without its having come any further is not begun a third time. */
  const park = (row: JobColumns) =>
    store.write((tx) => table.update({ state: 'failed', message: PARKED }, { id: row.id }, tx));

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
      const begun: Omit<JobColumns, 'id'> = {
        ...{ kind, title, person, total, state: 'waiting', work: JSON.stringify(work), cursor: '{}' },
        ...{ done: 0, message: null, entry: null, started: new Date().toISOString(), begun: 0 },
      };
      const id = await store.write((tx) => table.insert(begun, tx));
      const row = { ...begun, id };
      start(row);
      return stateOf(row);
    },
    /** Takes up what a killed server left unfinished. */
    async resume(): Promise<number> {
      const rows = await table.find({ where: { state: ['running', 'waiting'] }, order: [['id', 'ASC']] });
      for (const row of rows) await (row.begun >= MOST_BEGUN ? park(row) : start(row));
      return rows.length;
    },
    cancel: (id: number) => void cancelling.add(id),
    state: async (id: number): Promise<JobState | null> => {
      const job = live.get(id);
      if (job) return plain(job);
      const row = await table.first({ where: { id } });
      return row ? stateOf(row) : null;
    },
    running: (): JobState[] => [...live.values()].map(plain),
    /** Lets running chunks end and starts no more; what is left is taken up at the next start. */
    async stop(): Promise<void> {
      stopping = true;
      await store
        .reserve((tx) => table.update({ begun: 0 }, { state: 'running' }, tx))
        .catch(() => undefined);
      await Promise.allSettled([...running]);
    },
    idle: async (): Promise<void> => void (await Promise.allSettled([...running])),
  };
}
export type Jobs = ReturnType<typeof jobsOf>;
