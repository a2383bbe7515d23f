import type { PullRow } from '@osier/contract';
import { notFound } from '../http/problem';
import type { Store } from '../store/store';
import { pullRows } from './queries';

/** The copies of a list that are to be pulled, in the order of the shelf, ticked where they were scanned. */
export async function toPull(store: Store, id: number): Promise<PullRow[]> {
  if (!(await store.read('withdrawlist', id))) throw notFound(`Withdrawal list ${id}`);
  const { branches, locations } = (await store.lists()).value;
  const nameOf = (branch: string, location: string) => [
    branches.find((b) => b.code === branch)?.name ?? branch,
    locations.find((l) => l.branch === branch && l.code === location)?.name ?? location,
  ];
  return (await pullRows(store, id)).map(({ pulled, branch, location, ...row }) => ({
    ...row,
    place: nameOf(branch, location).join(', '),
    pulled: pulled === 1,
  }));
}
