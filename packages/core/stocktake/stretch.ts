import { isInRange, keyRange, type KeyRange, type Scheme } from '../callnumbers';
import type { Outside } from './counted-copy';

/** What a stocktake covers. Empty lists and texts mean all. */
export interface Stretch {
  readonly branch: string;
  readonly locations: readonly string[];
  readonly types: readonly string[];
  /** Copies of these statuses are left out. */
  readonly leftOut?: readonly string[];
  /** Call numbers from and to (inclusive, and all that begins with it), in this scheme. */
  readonly scheme: Scheme;
  readonly from: string;
  readonly to: string;
}

/** Where a copy stands by the records. */
export interface CopyPlace {
  readonly branch: string;
  readonly location: string;
  readonly type: string;
  readonly shelfKey: string;
}

/** Why a copy does not belong in the stretch, or null when it does. The ends of the range are read once. */
export function stretchTest(stretch: Stretch): (copy: CopyPlace) => Outside | null {
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
