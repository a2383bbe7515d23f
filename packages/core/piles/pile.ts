import { counted, type Id } from '../changes';

/** What a pile holds: records, or copies. */
export type PiledKind = 'record' | 'copy';

/** A named, kept set of records or copies to work on together. */
export interface Pile {
  readonly name: string;
  readonly of: PiledKind;
  readonly note: string;
  readonly by: string;
  /** ISO date. */
  readonly madeOn: string;
}

/** That one record or copy lies on a pile. A pile of any size is changed by what comes and goes, never rewritten. */
export interface Piled {
  readonly pile: Id<'pile'>;
  readonly kind: PiledKind;
  /** Number of the record or copy. */
  readonly object: number;
}

/** What of `wanted` is new to a pile that holds `held`, in the order it came, and how often something was there already. */
export function newToPile(
  held: ReadonlySet<number>,
  wanted: readonly number[],
): { fresh: number[]; repeated: number } {
  const fresh = new Set<number>();
  for (const object of wanted) if (!held.has(object)) fresh.add(object);
  return { fresh: [...fresh], repeated: wanted.length - fresh.size };
}

/** So many things of a pile, in words: "12 records", "1 copy". */
export const countedOn = (of: PiledKind, n: number): string =>
  of === 'record' ? counted(n, 'record') : counted(n, 'copy', 'copies');
