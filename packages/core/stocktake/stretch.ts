import { isInRange, keyRange, type KeyRange, type PrefixOrder, type Scheme } from '../callnumbers';
import type { Outside } from './counted-copy';

/** What a stocktake covers. Empty lists and texts mean all. */
export interface Stretch {
  readonly branch: string;
  /** Further branches of it. */
  readonly also?: readonly string[];
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

/** Why a copy does not belong in the stretch, or null when it does. The ends of the range are read once; `order` is the library's of its prefixes. */
export function stretchTest(stretch: Stretch, order: PrefixOrder = []): (copy: CopyPlace) => Outside | null {
  const range = rangeKeys(stretch, order);
  const branches = new Set(branchesOf(stretch));
  const [locations, types] = [new Set(stretch.locations), new Set(stretch.types)];
  return (copy) => {
    if (!branches.has(copy.branch)) return 'branch';
    if (locations.size && !locations.has(copy.location)) return 'location';
    if (types.size && !types.has(copy.type)) return 'type';
    return isInRange(copy.shelfKey, range) ? null : 'range';
  };
}

/** The branches of a stretch. */
export const branchesOf = ({ branch, also = [] }: Pick<Stretch, 'branch' | 'also'>): readonly string[] => [
  branch,
  ...also.filter((b) => b !== branch),
];

/** Those of the library’s locations that are of a stretch. */
export function locationsOf<L extends { readonly code: string; readonly branch: string }>(
  stretch: Pick<Stretch, 'branch' | 'also' | 'locations'>,
  all: readonly L[],
): readonly L[] {
  const branches = branchesOf(stretch);
  return all.filter(
    (l) =>
      branches.includes(l.branch) && (stretch.locations.length === 0 || stretch.locations.includes(l.code)),
  );
}

/** Sort keys of the range’s ends; null where it is open. */
export const rangeKeys = (stretch: Stretch, order: PrefixOrder = []): KeyRange =>
  keyRange(stretch.from, stretch.to, stretch.scheme, order);
