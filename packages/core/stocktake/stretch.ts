import { isInRange, keyRange, type KeyRange, type Scheme } from '../callnumbers';

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
export const outsideStretch = (copy: ShelfCopy, stretch: Stretch): Outside | null =>
  stretchTest(stretch)(copy);

/** What of a copy's place is not in a stretch. */
export type Outside = 'branch' | 'location' | 'type' | 'range';

/** The same for many copies: the ends of the range are read once. */
export function stretchTest(stretch: Stretch): (copy: ShelfCopy) => Outside | null {
  const range = rangeKeys(stretch);
  const [locations, types] = [new Set(stretch.locations), new Set(stretch.types)];
  return (copy) => {
    if (copy.branch !== stretch.branch) return 'branch';
    if (locations.size && !locations.has(copy.location)) return 'location';
    if (types.size && !types.has(copy.type)) return 'type';
    return isInRange(copy.shelfKey, range) ? null : 'range';
  };
}

/** Sort keys of the range’s ends; null where it is open. */
export const rangeKeys = (stretch: Stretch): KeyRange => keyRange(stretch.from, stretch.to, stretch.scheme);
