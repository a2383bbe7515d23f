import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** A scan as a device keeps it until the server has it. */
export interface KeptScan {
  readonly stocktake: number;
  readonly run: string;
  /** Counted within the run. */
  readonly number: number;
  readonly code: string;
  /** ISO date and time. */
  readonly at: string;
  readonly location: string;
}

/** A copy of a stretch as a device keeps it. */
export interface KeptCopy {
  readonly barcode: string;
  readonly shelfKey: string;
  readonly callNumber: string;
  readonly title: string;
  readonly location: string;
  readonly status: string;
}

interface Walks extends DBSchema {
  scans: { key: [number, string, number]; value: KeptScan };
  shelves: { key: number; value: { readonly stocktake: number; readonly copies: readonly KeptCopy[] } };
}

let opened: Promise<IDBPDatabase<Walks>> | null = null;
const walks = () =>
  (opened ??= openDB<Walks>('osier-walks', 1, {
    upgrade(db) {
      db.createObjectStore('scans', { keyPath: ['stocktake', 'run', 'number'] });
      db.createObjectStore('shelves', { keyPath: 'stocktake' });
    },
  }));

/** All scans of one stocktake. */
const ofStocktake = (stocktake: number) => IDBKeyRange.bound([stocktake], [stocktake, []]);

/** Keeps a scan; it is on the device before anything is said about it. */
export const keepScan = async (scan: KeptScan): Promise<void> =>
  void (await (await walks()).put('scans', scan));

/** The scans of a stocktake that the server does not have yet, in the order of their runs. */
export const waitingScans = async (stocktake: number): Promise<KeptScan[]> =>
  (await walks()).getAll('scans', ofStocktake(stocktake));

/** How many scans of a stocktake wait on this device. */
export const waitingCount = async (stocktake: number): Promise<number> =>
  (await walks()).count('scans', ofStocktake(stocktake));

/** Drops scans: the server has them, or they were taken back. */
export async function dropScans(scans: readonly KeptScan[]): Promise<void> {
  const tx = (await walks()).transaction('scans', 'readwrite');
  await Promise.all([...scans.map((s) => tx.store.delete([s.stocktake, s.run, s.number])), tx.done]);
}

/** Keeps the copies of a stretch. */
export const keepShelf = async (stocktake: number, copies: readonly KeptCopy[]): Promise<void> =>
  void (await (await walks()).put('shelves', { stocktake, copies }));

/** The copies of a stretch that are on this device; null when none were loaded. */
export const keptShelf = async (stocktake: number): Promise<readonly KeptCopy[] | null> =>
  (await (await walks()).get('shelves', stocktake))?.copies ?? null;

/** The first scans that can be sent together: of one run and location, with numbers that follow each other. */
export function firstTogether(waiting: readonly KeptScan[], atMost: number): readonly KeptScan[] {
  const [first] = waiting;
  if (!first) return [];
  const end = waiting.findIndex(
    (s, i) =>
      i >= atMost || s.run !== first.run || s.location !== first.location || s.number !== first.number + i,
  );
  return end < 0 ? waiting : waiting.slice(0, end);
}
