import type { ChangeSet, Versioned } from '@osier/core/changes';
import type { Incoming } from '@osier/core/deliveries';
import type { JobRun } from '../jobs/jobs';
import type { Services } from '../services';
import { commit } from '../store/commit';
import { ConflictError } from '../store/conflict';
import type { Transaction } from '../store/database';

/** Running totals that a job keeps with its cursor. */
export type Totals = Record<string, number>;

interface ChunkWork {
  readonly act: string;
  readonly delivery: number;
  readonly leaveOut: ReadonlySet<number>;
  /** What one chunk does, and what it adds to the totals. */
  plan(chunk: readonly Versioned<Incoming>[]): Promise<{
    changes: ChangeSet;
    totals: Totals;
    /** More to write in the same transaction. */
    also?: (tx: Transaction) => Promise<void>;
  }>;
  /** Which records it goes through, as a condition on their columns; those that wait when absent. */
  readonly which?: string;
  /** How the daybook tells it so far. */
  sentence(totals: Totals): string;
}

const CHUNK = 200;
const TRIES = 3;

/**
 * Goes through a delivery's waiting records in chunks. Each chunk is one transaction with its changes, its part of the
 * daybook entry and the job's cursor, so that a killed server takes up behind the last chunk.
 */
export async function inChunks({ store }: Services, run: JobRun, work: ChunkWork): Promise<Totals> {
  let { seq = 0, entry } = run.cursor as { seq?: number; entry?: number };
  let totals = (run.cursor.totals ?? {}) as Totals;
  let done = (run.cursor.done as number | undefined) ?? 0;
  for (;;) {
    if (run.cancelled()) return totals;
    const chunk = await store.select(
      'incoming',
      `delivery = :delivery AND ${work.which ?? "state = 'waiting'"} AND seq > :seq ORDER BY seq LIMIT ${CHUNK}`,
      { delivery: work.delivery, seq },
    );
    if (chunk.length === 0) return totals;
    for (let attempt = 1; ; attempt++) {
      const planned = await work.plan(chunk.filter((c) => !work.leaveOut.has(c.id)));
      const next = added(totals, planned.totals);
      const last = chunk.at(-1)!.value.seq;
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
            await run.keep(
              { seq: last, entry: e, totals: next, done: done + chunk.length },
              done + chunk.length,
              tx,
              e,
            );
          },
        });
        totals = next;
        seq = last;
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
