import { byKey } from '../callnumbers';
import { BY_ORDER, byTitle, type CountedCopy, type ShelfOrder } from './counted-copy';

/** The copies that belong to one walked place, in shelf order. */
export interface Home {
  /** Their indexes. */
  readonly copies: Int32Array;
  /** How many places on the shelf differ by what it is held in order by. */
  readonly places: number;
}

/**
 * Sorts the copies of each home, and gives each copy the rank of its place: those that may stand either way round share one.
 * `ranks` is by copy; -1 for a copy of no home.
 */
export function sortedHomes(
  copies: readonly CountedCopy[],
  orders: readonly ShelfOrder[],
): { readonly homes: readonly Home[]; readonly ranks: Int32Array } {
  const own: number[][] = orders.map(() => []);
  copies.forEach((c, i) => own[c.home]?.push(i));
  const ranks = new Int32Array(copies.length).fill(-1);
  const homes = own.map((indexes, home): Home => {
    const sorted = inShelfOrder(copies, indexes);
    const compare = BY_ORDER[orders[home]!];
    let rank = -1;
    sorted.forEach((i, at) => {
      if (at === 0 || compare(copies[sorted[at - 1]!]!, copies[i]!) !== 0) rank++;
      ranks[i] = rank;
    });
    return { copies: sorted, places: rank + 1 };
  });
  return { homes, ranks };
}

/** Characters of a call number’s key by which copies are put into heaps: a Dewey class with two decimals, an LC class. */
const BEGINNING = 7;

/** Copies by call number, author, title and barcode: sorted heap by heap, as neighbours are compared far faster than what lies far apart. */
function inShelfOrder(copies: readonly CountedCopy[], indexes: readonly number[]): Int32Array {
  const heaps = new Map<string, number[]>();
  for (const i of indexes) {
    const beginning = copies[i]!.call.slice(0, BEGINNING);
    const heap = heaps.get(beginning);
    if (heap) heap.push(i);
    else heaps.set(beginning, [i]);
  }
  const sorted = new Int32Array(indexes.length);
  let at = 0;
  for (const beginning of [...heaps.keys()].sort(byKey)) {
    const heap = heaps.get(beginning)!;
    heap.sort((a, b) => byTitle(copies[a]!, copies[b]!) || byKey(copies[a]!.barcode, copies[b]!.barcode));
    sorted.set(heap, at);
    at += heap.length;
  }
  return sorted;
}
