import type { Stocktake } from '@osier/core/stocktake';
import type { Store } from '../store/store';

/** The names of branches and locations, for sentences. */
export async function placeNames(store: Store) {
  const { branches, locations } = (await store.lists()).value;
  return {
    branchName: (code: string) => branches.find((b) => b.code === code)?.name ?? code,
    locationName: (code: string) => locations.find((l) => l.code === code)?.name ?? code,
  };
}

/** The stretch of a stocktake, in words. */
export function placeNameOf(
  { stretch }: Stocktake,
  { branchName, locationName }: Awaited<ReturnType<typeof placeNames>>,
): string {
  const range =
    stretch.from || stretch.to ? [`${stretch.from || 'the beginning'} to ${stretch.to || 'the end'}`] : [];
  return [branchName(stretch.branch), ...stretch.locations.map(locationName), ...range].join(', ');
}
