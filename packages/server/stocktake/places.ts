import { branchesOf, type Stocktake } from '@osier/core/stocktake';
import type { Store } from '../store/store';

/** The names of branches and locations, for sentences. */
export async function placeNames(store: Store) {
  const { branches, locations } = (await store.lists()).value;
  const branchName = (code: string) => branches.find((b) => b.code === code)?.name ?? code;
  const locationName = (code: string) => locations.find((l) => l.code === code)?.name ?? code;
  const branchOf = (location: string) => locations.find((l) => l.code === location)?.branch;
  return {
    ...{ branchName, locationName, branchOf },
    /** A location, behind its branch where several are spoken of. */
    placeName: (code: string, ofSeveral: boolean): string => {
      const branch = ofSeveral ? branchOf(code) : undefined;
      return branch === undefined ? locationName(code) : `${branchName(branch)}, ${locationName(code)}`;
    },
  };
}

/** The stretch of a stocktake, in words. */
export function placeNameOf(
  { stretch }: Stocktake,
  { branchName, locationName }: Awaited<ReturnType<typeof placeNames>>,
): string {
  const range =
    stretch.from || stretch.to ? [`${stretch.from || 'the beginning'} to ${stretch.to || 'the end'}`] : [];
  const branches = branchesOf(stretch).map(branchName).join(' and ');
  return [branches, ...stretch.locations.map(locationName), ...range].join(', ');
}
