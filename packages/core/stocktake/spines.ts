import type { ShelfCopy } from './stretch';

/** One spine in the order of the walk, for the shelf strip. */
export interface Spine {
  readonly code: string;
  readonly callNumber: string;
  readonly title: string;
  readonly state: 'in place' | 'out-of-order' | 'should-not-be-here' | 'unknown' | 'not-found';
  /** For one out of order: the code it belongs behind. */
  readonly after?: string | null;
  /** A whole run of copies before this spine was not scanned. */
  readonly jumped?: number;
}

/** A run of copies that were not scanned. */
export interface Jump {
  /** The code scanned before it; null at the beginning. */
  readonly after: string | null;
  readonly count: number;
  /** Call numbers of the first and the last. */
  readonly from: string;
  readonly to: string;
}

/** Index of the first copy whose key is greater. */
export function firstAfter(sorted: readonly ShelfCopy[], key: string): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (sorted[mid]!.shelfKey <= key) low = mid + 1;
    else high = mid;
  }
  return low;
}

/** Runs of copies in shelf order that were not scanned and have no excuse: a shelf that was walked past. */
export function jumpsIn(
  expected: readonly ShelfCopy[],
  scanned: ReadonlySet<string>,
  notFound: ReadonlySet<string>,
  length: number,
): readonly Jump[] {
  const jumps: Jump[] = [];
  if (scanned.size === 0) return jumps;
  let run: ShelfCopy[] = [];
  let last: string | null = null;
  const close = () => {
    if (run.length >= length)
      jumps.push({ after: last, count: run.length, from: run[0]!.callNumber, to: run.at(-1)!.callNumber });
    run = [];
  };
  for (const copy of expected) {
    if (scanned.has(copy.barcode)) {
      close();
      last = copy.barcode;
    } else if (notFound.has(copy.barcode)) run.push(copy);
  }
  close();
  return jumps;
}

/** The spines of a walk: what was scanned in its order, and where a copy should stand, a ghost behind the one it belongs to. */
export function spines(
  order: readonly string[],
  byBarcode: ReadonlyMap<string, ShelfCopy>,
  states: ReadonlyMap<string, Spine['state']>,
  liftedAfter: ReadonlyMap<string, string | null>,
  inPlace: readonly ShelfCopy[],
  notFound: readonly ShelfCopy[],
  jumps: readonly Jump[],
): Spine[] {
  const ghosts = new Map<string | null, ShelfCopy[]>();
  for (const copy of notFound) {
    const before = inPlace[firstAfter(inPlace, copy.shelfKey) - 1]?.barcode ?? null;
    const there = ghosts.get(before);
    if (there) there.push(copy);
    else ghosts.set(before, [copy]);
  }
  const jumpAfter = new Map(jumps.map((j) => [j.after, j.count]));
  const row: Spine[] = [];
  const putGhosts = (after: string | null) => {
    if (jumpAfter.has(after)) return;
    for (const g of ghosts.get(after) ?? [])
      row.push({ code: g.barcode, callNumber: g.callNumber, title: g.title, state: 'not-found' });
  };
  putGhosts(null);
  let notch = jumpAfter.get(null);
  for (const code of order) {
    const copy = byBarcode.get(code);
    row.push({
      code,
      callNumber: copy?.callNumber ?? '',
      title: copy?.title ?? '',
      state: states.get(code) ?? 'in place',
      ...(liftedAfter.has(code) ? { after: liftedAfter.get(code) } : {}),
      ...(notch ? { jumped: notch } : {}),
    });
    notch = jumpAfter.get(code);
    putGhosts(code);
  }
  return row;
}
