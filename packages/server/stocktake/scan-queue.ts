import type { StoredObject } from '@osier/core/kinds';
import { lastOfWalks, shelfCopies, type ShelfRow } from '../projections/stocktake-places';
import { addSeen, madeOnes } from '../projections/stocktake-scans';
import { markStocktakes, stocktakeState } from '../projections/stocktakes';
import { keepScans, type ReadyScans } from '../scanner/scans';
import type { Store } from '../store/store';
import { placeNames } from './places';
import { mayScan, openStocktake } from './stocktake';

/** Verdicts of one answer. */
export const ANSWERED = 20;

/** What was kept of somebody's scans, and what their verdicts are made from. */
export interface KeptScans {
  /** How many were not kept before. */
  readonly fresh: number;
  readonly stocktake: StoredObject<'stocktake'>;
  readonly house: Awaited<ReturnType<Store['house']>>['value'];
  readonly names: Awaited<ReturnType<typeof placeNames>>;
  /** The copy of the stretch that was scanned last in the same walk before these; null for none. */
  readonly before: ShelfRow | null;
  /** Copies that have the last codes, by barcode. */
  readonly copies: ReadonlyMap<string, ShelfRow>;
  /** How many copies are expected, and how many of them were scanned. */
  readonly far: { readonly expected: number; readonly found: number };
}

interface Waiting {
  readonly sent: ReadyScans;
  readonly done: (kept: KeptScans) => void;
  readonly failed: (error: unknown) => void;
}

/** Keeps scans of a stocktake: what ten scanners send in one moment is one transaction, not ten that wait for each other. */
export type KeepStocktakeScans = (id: number, sent: ReadyScans) => Promise<KeptScans>;

/** The queue of scans of a store. */
export function scanQueue(store: Store): KeepStocktakeScans {
  const waiting = new Map<number, Waiting[]>();
  /** Keeps all that waits for a stocktake, and what came meanwhile, until nothing does. */
  const keepAll = async (id: number) => {
    while (waiting.get(id)?.length) {
      const some: Waiting[] = [];
      const takeAll = () => {
        some.push(...(waiting.get(id) ?? []));
        waiting.set(id, []);
        return some;
      };
      try {
        await keepTogether(store, id, takeAll);
      } catch (error) {
        // What could not be begun is told to those who wait, not tried for ever.
        for (const one of some.length ? some : takeAll()) one.failed(error);
      }
    }
    waiting.delete(id);
  };
  return (id, sent) =>
    new Promise((done, failed) => {
      const queue = waiting.get(id);
      const one = { sent, done, failed };
      if (queue) return void queue.push(one);
      waiting.set(id, [one]);
      void keepAll(id);
    });
}

/** `takeAll` gives what waits: asked once the transaction has begun, so that what came until then is in it. */
async function keepTogether(store: Store, id: number, takeAll: () => readonly Waiting[]): Promise<void> {
  const { allowed, counts, stocktake, lasts } = await store.write(async (tx) => {
    const some = takeAll();
    const inside = store.within(tx);
    const stocktake = await openStocktake(inside, id);
    const allowed = some.filter((one) => {
      const no = mayScan(stocktake, one.sent.person);
      if (no) one.failed(no);
      return no === null;
    });
    const sent = allowed.map((one) => one.sent);
    const lasts = await lastOfWalks(
      inside,
      id,
      sent.map(({ from }) => ({ device: from?.device ?? '', run: from?.run ?? '' })),
    );
    const { fresh, counts } = await keepScans(inside, { purpose: 'stocktake', work: id }, sent, tx);
    await addSeen(inside, id, madeOnes(fresh), tx);
    if (fresh.length) await markStocktakes(inside, [id], tx, true);
    return { allowed, counts, stocktake, lasts };
  });
  const codes = allowed.flatMap((one) => one.sent.scans.slice(-ANSWERED).map((s) => s.code));
  const [copies, house, names, state] = await Promise.all([
    shelfCopies(store, id, [...new Set([...codes, ...lasts.flatMap((code) => code ?? [])])]),
    store.house(),
    placeNames(store),
    stocktakeState(store, id),
  ]);
  const { expected = 0, found = 0 } = state ?? {};
  const known = { stocktake, copies, house: house.value, names, far: { expected, found } };
  allowed.forEach((one, i) =>
    one.done({ ...known, before: copies.get(lasts[i] ?? '') ?? null, fresh: counts[i] ?? 0 }),
  );
}
