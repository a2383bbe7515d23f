import type { Act } from '@osier/core/acts';
import type { ChangeSet } from '@osier/core/kinds';
import type { Services } from '../services';
import { tryPlan, type MadeAhead } from '../store/commit';
import type { Transaction } from '../store/database';
import { changedSince, type ObjectOf } from '../store/entries-since';
import type { Store } from '../store/store';
import { number, object } from 'yup';
import type { JobRun } from './jobs';
import { chunkCursor, keptWork, type Totals } from './kept-work';

/** What one chunk does, and what it adds to the totals. */
export interface ChunkPlan<W = unknown> {
  readonly changes: ChangeSet;
  readonly totals: Totals;
  /** More to write in the same transaction. */
  readonly also?: (tx: Transaction) => Promise<void>;
  /** What the plan of the chunk behind it must know as long as this one is not written; absent where it must wait for that. */
  readonly unwritten?: W;
}

/**
 * Long work over many objects that stand in an order. `A` is what is asked outside before a chunk is planned, `W` what a chunk that is not written yet
 * tells the next.
 */
export interface ChunkWork<R, A = void, W = unknown> {
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
  plan(chunk: readonly R[], store: Store, asked: A, own?: number): Promise<ChunkPlan<W>>;
  /** Plans a chunk while the one before is written, as it comes out when that is; null where it cannot be known before. */
  planBehind?(chunk: readonly R[], store: Store, unwritten: W, own: number): Promise<ChunkPlan<W> | null>;
  /** What it has done so far, as the daybook keeps it. */
  did(totals: Totals): Act;
}

/** Objects of a chunk. */
export const CHUNK = 200;

/**
 * Goes through objects in chunks. Each chunk is one transaction with its changes, its part of the daybook entry and the
 * job's cursor, so that a killed server takes up behind the last chunk. A chunk during whose planning somebody has written
 * something is planned once more inside its transaction. Where the work can, it plans a chunk while the one before is written.
 */
export async function inChunks<R, A = void, W = unknown>(
  { store }: Services,
  run: JobRun,
  work: ChunkWork<R, A, W>,
): Promise<Totals> {
  let at: Place = keptWork(chunkCursor, run.cursor);
  const { asOf } = keptWork(reviewedWork, run.work);
  /** What is done with the chunk behind a place, by the plan that it is given. */
  const made = async (from: Place, s: Store, plan: Planner<R, W>) => {
    const chunk = await work.next(from.place, s);
    const still = await asReviewed(s, work, chunk, asOf, from.entry);
    const planned = still.length ? await plan(still, s) : { changes: [], totals: {} };
    if (planned === null) return null;
    const totals = added(from.totals, { ...planned.totals, meanwhile: chunk.length - still.length });
    const place = chunk.length ? work.placeOf(chunk.at(-1)!) : from.place;
    const done = from.done + chunk.length;
    return {
      did: work.did(totals),
      changes: planned.changes,
      entry: from.entry,
      mayBeNothing: true,
      isEmpty: chunk.length === 0,
      next: { place, totals, done },
      unwritten: planned.unwritten,
      also: async (tx: Transaction, e: number | null) => {
        if (chunk.length === 0) return;
        await planned.also?.(tx);
        await run.keep({ place, entry: e ?? undefined, totals, done }, done, tx, e ?? undefined);
      },
    };
  };
  type Made = NonNullable<Awaited<ReturnType<typeof made>>>;
  /** The chunk behind one that is being written now, where it can be planned already. */
  const behind = async ({ entry, next, unwritten }: Made): Promise<MadeAhead<Made> | null> => {
    // The first chunk makes the entry by whose number the others know their own.
    if (!work.planBehind || entry === undefined || unwritten === undefined) return null;
    const written = store.writes() + 1;
    const planned = await made({ ...next, entry }, store, (chunk, s) =>
      work.planBehind!(chunk, s, unwritten, entry),
    );
    return planned && { planned, asOf: written };
  };
  let ahead: Promise<MadeAhead<Made> | null> = Promise.resolve(null);
  while (!run.cancelled()) {
    const from = at;
    const asked = (work.ask && (await work.ask(await work.next(from.place, store)))) as A;
    const ready = await ahead;
    // What is planned meanwhile is no part of the transaction that it is told of in.
    const begun = told<Made>();
    // A plan that fails ahead of its turn is made again in its turn.
    ahead = begun.value.then(behind).catch(() => null);
    const done = await tryPlan(
      store,
      run.person,
      async (s) => (await made(from, s, (chunk, inside) => work.plan(chunk, inside, asked, from.entry)))!,
      ready,
      begun.tell,
    );
    if (done.isEmpty) break;
    at = { ...done.next, entry: done.entry ?? undefined };
  }
  // Nothing is read for it any more when the store is closed.
  await ahead;
  return at.totals;
}

/** How far the work has come: behind which place, in which entry. */
interface Place {
  readonly place: number;
  readonly entry?: number;
  readonly totals: Totals;
  readonly done: number;
}
type Planner<R, W> = (chunk: readonly R[], store: Store) => Promise<ChunkPlan<W> | null>;

/** A value that is told later, by whom it is given to. */
function told<T>(): { readonly value: Promise<T>; readonly tell: (value: T) => void } {
  let tell!: (value: T) => void;
  const value = new Promise<T>((resolve) => (tell = resolve));
  return { value, tell };
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
