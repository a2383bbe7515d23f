import { may, type Person, type SavedSearchBody, type SavedSearchRow } from '@osier/contract';
import type { Act } from '@osier/core/acts';
import { creation, removal, update } from '@osier/core/changes';
import type { SavedSearch } from '@osier/core/find';
import type { StoredObject } from '@osier/core/kinds';
import { notFound, ProblemError, wrong } from '../http/problem';
import { allPeople } from '../people/queries';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';

/** Searches that one person can keep. */
const MOST = 200;

/** The searches that a person sees, by name: one's own, and those that others share. */
export async function searchesOf(store: Store, person: Person): Promise<StoredObject<'savedsearch'>[]> {
  const held = await store.find('savedsearch', {
    order: [
      ['name', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  return held.filter(({ value }) => value.owner === person.id || value.isShared);
}

/** The same as rows. */
export async function listSearches({ store }: Services, person: Person): Promise<SavedSearchRow[]> {
  const held = await searchesOf(store, person);
  const names = new Map((await allPeople(store)).map((p) => [p.id, p.name]));
  return held.map(({ id, version, value: { owner, ...value } }) => ({
    ...{ id, version, ...value },
    by: names.get(owner) ?? '',
    isMine: owner === person.id,
  }));
}

const did = (search: string, how: 'kept' | 'changed' | 'deleted'): Act => ({
  ...{ act: 'keep-search', names: { search }, how },
});

/** Two of one person and name could not be told apart. */
async function refuseSecond(store: Store, owner: number, name: string, id: number | null): Promise<void> {
  const mine = await store.find('savedsearch', { where: { owner } });
  if (mine.some((s) => s.id !== id && s.value.name.toLowerCase() === name.toLowerCase()))
    throw wrong('name', `There is a saved search “${name}” already.`);
  if (id === null && mine.length >= MOST)
    throw wrong('name', `At most ${MOST} searches are saved; delete some first.`);
}

/** Saves a search under a name. */
export const keepSearch = ({ store }: Services, person: Person, body: SavedSearchBody) =>
  commitPlan(store, person.id, async (s) => {
    const value: SavedSearch = { ...body, owner: person.id };
    await refuseSecond(s, person.id, value.name, null);
    const id = await s.nextIds('savedsearch', 1);
    return { did: did(value.name, 'kept'), id, changes: [creation('savedsearch', id, value)] };
  });

/** The search as it stands, if this person may change it: one of somebody else's that is not shared is not there at all. */
async function mineToChange(store: Store, person: Person, id: number): Promise<StoredObject<'savedsearch'>> {
  const held = await store.read('savedsearch', id);
  if (!held || (held.value.owner !== person.id && !held.value.isShared)) throw notFound(`Saved search ${id}`);
  if (held.value.owner !== person.id && !may(person.role, 'set up', person.rights))
    throw new ProblemError(403, 'Only whoever saved a search, or the head, can change it.');
  return held;
}

/** Changes a saved search; it stays with whoever keeps it. */
export const changeSearch = (
  { store }: Services,
  person: Person,
  id: number,
  { version, ...body }: SavedSearchBody & { version: number },
) =>
  commitPlan(store, person.id, async (s) => {
    const held = await mineToChange(s, person, id);
    const value: SavedSearch = { ...body, owner: held.value.owner };
    await refuseSecond(s, value.owner, value.name, id);
    return { did: did(value.name, 'changed'), changes: [update('savedsearch', { ...held, version }, value)] };
  });

/** Deletes a saved search. */
export const removeSearch = ({ store }: Services, person: Person, id: number, version: number) =>
  commitPlan(store, person.id, async (s) => {
    const held = await mineToChange(s, person, id);
    return { did: did(held.value.name, 'deleted'), changes: [removal('savedsearch', { ...held, version })] };
  });
