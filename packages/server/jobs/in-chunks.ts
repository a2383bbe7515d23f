import type { ChangeSet } from '@osier/core/changes';
import type { Services } from '../services';
import { commit } from '../store/commit';
import { ConflictError } from '../store/conflict';
import type { Transaction } from '../store/database';
import type { JobRun } from './jobs';

/** Running totals that a job keeps with its cursor. */
export type Totals = Record<string, number>;

/** What one chunk does, and what it adds to the totals. */
export interface ChunkPlan {
  readonly changes: ChangeSet;
  readonly totals: Totals;
  /** More to write in the same transaction. */
  readonly also?: (tx: Transaction) => Promise<void>;
}

/** Long work over many objects that stand in an order. */
export interface ChunkWork<R> {
  readonly act: string;
  /** The objects behind a place in the order, as they are now; none when it is done. */
  next(after: number): Promise<readonly R[]>;
  placeOf(row: R): number;
  plan(chunk: readonly R[]): Promise<ChunkPlan>;
  /** How the daybook tells it so far. */
  sentence(totals: Totals): string;
}

export const CHUNK = 200;
const TRIES = 3;

/**
 * Goes through objects in chunks. Each chunk is one transaction with its changes, its part of the daybook entry and the
 * job's cursor, so that a killed server takes up behind the last chunk. A chunk in which somebody changed something
 * meanwhile is planned once more.
 */
export async function inChunks<R>({ store }: Services, run: JobRun, work: ChunkWork<R>): Promise<Totals> {
  let { place = 0, entry } = run.cursor as { place?: number; entry?: number };
  let totals = (run.cursor.totals ?? {}) as Totals;
  let done = (run.cursor.done as number | undefined) ?? 0;
  for (;;) {
    if (run.cancelled()) return totals;
    for (let attempt = 1; ; attempt++) {
      const chunk = await work.next(place);
      if (chunk.length === 0) return totals;
      const planned = await work.plan(chunk);
      const next = added(totals, planned.totals);
      const last = work.placeOf(chunk.at(-1)!);
      try {
        await commit(store, {
          act: work.act,
          person: run.person,
          sentence: work.sentence(next),
          changes: planned.changes,
          entry,
          also: async (tx, e) => {
            entry = e;
            await planned.also?.(tx);
            const so = done + chunk.length;
            await run.keep({ place: last, entry: e, totals: next, done: so }, so, tx, e);
          },
        });
        totals = next;
        place = last;
        done += chunk.length;
        break;
      } catch (error) {
        if (!(error instanceof ConflictError) || attempt === TRIES) throw error;
      }
    }
  }
}

const added = (a: Totals, b: Totals): Totals => {
  const sum: Totals = { ...a };
  for (const [k, n] of Object.entries(b)) sum[k] = (sum[k] ?? 0) + n;
  return sum;
};
