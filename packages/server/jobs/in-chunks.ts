import type { Act } from '@osier/core/acts';
import type { ChangeSet } from '@osier/core/kinds';
import type { Services } from '../services';
import { tryPlan } from '../store/commit';
import type { Transaction } from '../store/database';
import { changedSince, type ObjectOf } from '../store/entries-since';
import type { Store } from '../store/store';
import { number, object } from 'yup';
import type { JobRun } from './jobs';
import { chunkCursor, keptWork, type Totals } from './kept-work';

/** What one chunk does, and what it adds to the totals. */
export interface ChunkPlan {
  readonly changes: ChangeSet;
  readonly totals: Totals;
  /** More to write in the same transaction. */
  readonly also?: (tx: Transaction) => Promise<void>;
}

/** Long work over many objects that stand in an order. `A` is what is asked outside before a chunk is planned. */
export interface ChunkWork<R, A = void> {
  /** The objects behind a place in the order, as they are now; none when it is done. */
  next(after: number, store: Store): Promise<readonly R[]>;
  placeOf(row: R): number;
  /** What of the store an object is made of; what others have changed of it since the review leaves it out. */
  objectsOf?(row: R): readonly ObjectOf[];
  /** Questions to the outside about a chunk, which may take long. */
  ask?(chunk: readonly R[]): Promise<A>;
  /**
   * Reads only through `store`. It may be called twice for a chunk, when something was written meanwhile. `own` is the entry of what the work has
   * done so far.
   */
  plan(chunk: readonly R[], store: Store, asked: A, own?: number): Promise<ChunkPlan>;
  /** What it has done so far, as the daybook keeps it. */
  did(totals: Totals): Act;
}

/** Objects of a chunk. */
export const CHUNK = 200;

/**
 * Goes through objects in chunks. Each chunk is one transaction with its changes, its part of the daybook entry and the
 * job's cursor, so that a killed server takes up behind the last chunk. A chunk during whose planning somebody has written
 * something is planned once more inside its transaction.
 */
export async function inChunks<R, A = void>(
  { store }: Services,
  run: JobRun,
  work: ChunkWork<R, A>,
): Promise<Totals> {
  let { place, entry, totals, done } = keptWork(chunkCursor, run.cursor);
  const { asOf } = keptWork(reviewedWork, run.work);
  while (!run.cancelled()) {
    const asked = (work.ask && (await work.ask(await work.next(place, store)))) as A;
    const made = await tryPlan(store, run.person, async (s) => {
      const chunk = await work.next(place, s);
      const still = await asReviewed(s, work, chunk, asOf, entry);
      const planned = still.length ? await work.plan(still, s, asked, entry) : { changes: [], totals: {} };
      const next = added(totals, { ...planned.totals, meanwhile: chunk.length - still.length });
      const last = chunk.length ? work.placeOf(chunk.at(-1)!) : place;
      const so = done + chunk.length;
      return {
        did: work.did(next),
        changes: planned.changes,
        entry,
        mayBeNothing: true,
        chunk,
        next,
        last,
        also: async (tx: Transaction, e: number | null) => {
          if (chunk.length === 0) return;
          await planned.also?.(tx);
          await run.keep(
            { place: last, entry: e ?? undefined, totals: next, done: so },
            so,
            tx,
            e ?? undefined,
          );
        },
      };
    });
    if (made.chunk.length === 0) break;
    totals = made.next;
    place = made.last;
    entry = made.entry ?? undefined;
    done += made.chunk.length;
  }
  return totals;
}

const reviewedWork = object({ asOf: number().integer().optional() });

/** The objects of a chunk that are as they were when all was reviewed. */
async function asReviewed<R, A>(
  store: Store,
  { objectsOf }: ChunkWork<R, A>,
  chunk: readonly R[],
  asOf: number | undefined,
  own: number | undefined,
): Promise<readonly R[]> {
  if (!objectsOf || asOf === undefined) return chunk;
  const changed = await changedSince(store, chunk.flatMap(objectsOf), asOf, own);
  return changed.size === 0
    ? chunk
    : chunk.filter((row) => !objectsOf(row).some(([kind, id]) => changed.has(`${kind} ${id}`)));
}

const added = (a: Totals, b: Totals): Totals => {
  const sum: Totals = { ...a };
  for (const [k, n] of Object.entries(b)) sum[k] = (sum[k] ?? 0) + n;
  return sum;
};
