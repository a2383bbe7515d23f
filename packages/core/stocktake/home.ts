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
  copies.forEach(({ home }, i) => {
    if (home >= 0) own[home]!.push(i);
  });
  const ranks = new Int32Array(copies.length).fill(-1);
  const begins = new CallBeginnings(copies);
  const homes = own.map((indexes, home): Home => {
    const sorted = begins.sorted(indexes, (a, b) => {
      const [one, other] = [copies[a]!, copies[b]!];
      return byTitle(one, other) || byKey(one.barcode, other.barcode);
    });
    const compare = BY_ORDER[orders[home]!];
    let rank = -1;
    sorted.forEach((i, at) => {
      const before = sorted[at - 1];
      if (before === undefined || !begins.areAlike(before, i) || compare(copies[before]!, copies[i]!) !== 0)
        rank++;
      ranks[i] = rank;
    });
    return { copies: sorted, places: rank + 1 };
  });
  return { homes, ranks };
}

/** Characters of a key that one number holds in order, and bits of each: 49 of the 53 that a number has. */
const [CHARACTERS, BITS] = [7, 7];
const MOST = 2 ** BITS - 1;

/** The beginnings of call numbers' keys as numbers, in the order of the keys: most are told apart by them, without a look at the texts. */
class CallBeginnings {
  private readonly first: Float64Array;
  private readonly second: Float64Array;

  constructor(copies: readonly CountedCopy[]) {
    this.first = new Float64Array(copies.length);
    this.second = new Float64Array(copies.length);
    for (let i = 0; i < copies.length; i++) {
      const { call } = copies[i]!;
      this.first[i] = packed(call, 0);
      if (isHeld(call)) this.second[i] = packed(call, CHARACTERS);
    }
  }

  /** Whether the beginnings do not tell two copies apart. */
  areAlike(a: number, b: number): boolean {
    return this.first[a] === this.first[b] && this.second[a] === this.second[b];
  }

  /** Copies by their beginnings; those that are alike as `compare` says. */
  sorted(indexes: readonly number[], compare: (a: number, b: number) => number): Int32Array {
    const { first, second } = this;
    const found = new Int32Array(indexes).sort((a, b) => first[a]! - first[b]! || second[a]! - second[b]!);
    for (let from = 0, to; from < found.length; from = to) {
      for (to = from + 1; to < found.length && this.areAlike(found[from]!, found[to]!);) to++;
      if (to - from > 1) found.subarray(from, to).sort(compare);
    }
    return found;
  }
}

/** Whether a number holds the beginning of a text whole; what stands behind a character that it does not hold says nothing. */
function isHeld(text: string): boolean {
  for (let i = 0; i < CHARACTERS && i < text.length; i++) if (text.charCodeAt(i) >= MOST) return false;
  return true;
}

/** Some characters of a text as a number: those from the first on that does not fit are not held. */
function packed(text: string, from: number): number {
  let number = 0;
  for (let i = from; i < from + CHARACTERS; i++) {
    const code = i < text.length ? text.charCodeAt(i) : 0;
    if (code >= MOST) return (number * (MOST + 1) + MOST) * (MOST + 1) ** (from + CHARACTERS - 1 - i);
    number = number * (MOST + 1) + code;
  }
  return number;
}
