import { shelfKeyOf, type Scheme } from '../callnumbers';

/** What a stocktake covers. Empty lists and texts mean all. */
export interface Stretch {
  readonly branch: string;
  readonly locations: readonly string[];
  readonly types: readonly string[];
  /** Call numbers from and to (inclusive, and all that begins with it), in this scheme. */
  readonly scheme: Scheme;
  readonly from: string;
  readonly to: string;
}

/** A copy as a stocktake knows it. */
export interface ShelfCopy {
  readonly copyId: number;
  readonly barcode: string;
  readonly recordId: number;
  readonly title: string;
  readonly branch: string;
  readonly location: string;
  readonly type: string;
  readonly callNumber: string;
  readonly shelfKey: string;
  readonly status: string;
  readonly onLoan: boolean;
  readonly lastSeen: string;
}

/** Why a copy does not belong in the stretch, or null when it does. */
export function outsideStretch(
  copy: ShelfCopy,
  stretch: Stretch,
): 'branch' | 'location' | 'type' | 'range' | null {
  if (copy.branch !== stretch.branch) return 'branch';
  if (stretch.locations.length && !stretch.locations.includes(copy.location)) return 'location';
  if (stretch.types.length && !stretch.types.includes(copy.type)) return 'type';
  const { from, to } = rangeKeys(stretch);
  if (from !== null && copy.shelfKey < from) return 'range';
  if (to !== null && copy.shelfKey > to && !copy.shelfKey.startsWith(to)) return 'range';
  return null;
}

/** Sort keys of the range's ends; null where it is open. */
export function rangeKeys(stretch: Stretch): { from: string | null; to: string | null } {
  const key = (text: string) => (text.trim() ? shelfKeyOf(text.trim(), stretch.scheme) : null);
  return { from: key(stretch.from), to: key(stretch.to) };
}
