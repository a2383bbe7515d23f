import type { Done, HoldingBody, HoldingChangeBody } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import type { Act } from '@osier/core/acts';
import { callNumberFault, callNumberText } from '@osier/core/callnumbers';
import { counted, creation, removal, update } from '@osier/core/changes';
import { movedStock, type Stocked } from '@osier/core/duplicates';
import { placeProblems, type Holding } from '@osier/core/holdings';
import type { Change, StoredObject } from '@osier/core/kinds';
import { notFound, wrong, wrongFields } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';

/** Adds a holding to a record. */
export const addHolding = (
  { store }: Services,
  person: number,
  body: HoldingBody,
): Promise<Done & { id: number }> =>
  commitPlan(store, person, async (s) => {
    const title = await titleOf(s, body.record);
    const { place, ...change } = await newHolding(s, body);
    const names = { title, callNumber: callNumberText(body), location: place };
    return { did: { act: 'add-holding', names } satisfies Act, id: change.id, changes: [change] };
  });

/** The change that makes a holding, with the name of its location; throws what is wrong with it by field. */
export async function newHolding(
  store: Store,
  body: HoldingBody,
): Promise<Change<'holding'> & { readonly after: Holding; readonly place: string }> {
  const { record, ...rest } = body;
  const value = holdingOf(record, rest);
  const place = await placeToBe(store, value, null);
  return { ...creation('holding', await store.nextIds('holding', 1), value), after: value, place };
}

const holdingOf = (record: number, body: Omit<HoldingBody, 'record'>): Holding => {
  const { branch, location, scheme, prefix, class: cls, item, year, suffix, note, staffNote } = body;
  return {
    ...{ record, branch, location, scheme, prefix, class: cls, item },
    ...(year && { year }),
    ...{ suffix, note },
    ...(staffNote && { staffNote }),
  };
};

/** The name of a holding's location; throws when branch or location are not on the lists, or another holding of the title is just there. */
async function placeToBe(store: Store, value: Holding, own: number | null): Promise<string> {
  const lists = (await store.lists()).value;
  const fault = callNumberFault(value);
  const problems = [
    ...placeProblems(value, lists),
    ...(fault === null ? [] : [{ field: 'class', message: fault }]),
  ];
  if (problems.length) throw wrongFields(problems);
  const { record, branch, location } = value;
  const others = await store.find('holding', { where: { record, branch, location } });
  if (others.some((h) => h.id !== own && callNumberText(h.value) === callNumberText(value)))
    throw wrong(
      'location',
      own === null
        ? `This title already has a holding there under ${callNumberText(value)}. Add the copy to it.`
        : `This title already has a holding there under ${callNumberText(value)}. Join the two instead.`,
    );
  return lists.locations.find((l) => l.code === location)!.name;
}

/** Changes where a holding stands and under what, and its notes. */
export const changeHolding = (
  { store }: Services,
  person: number,
  id: number,
  { version, ...body }: HoldingChangeBody,
): Promise<Done> =>
  commitPlan(store, person, async (s) => {
    const held = await holdingThere(s, id);
    const next = holdingOf(held.value.record, body);
    const location = await placeToBe(s, next, id);
    const did: Act = {
      act: 'change-holding',
      names: {
        title: await titleOf(s, held.value.record),
        callNumber: callNumberText(next),
        location,
      },
      was: `${callNumberText(held.value)}, ${await locationName(s, held.value.location)}`,
    };
    return { did, changes: [update('holding', { ...held, version }, next)] };
  });

/** Deletes a holding on which no copy hangs. */
export const removeHolding = (
  { store }: Services,
  person: number,
  id: number,
  version: number,
): Promise<Done> =>
  commitPlan(store, person, async (s) => {
    const held = await holdingThere(s, id);
    const { length } = await s.find('copy', { where: { holding: id } });
    if (length)
      throw wrong(
        'copies',
        `${counted(length, 'copy', 'copies')} hang on this holding. Move or withdraw them first.`,
      );
    const did: Act = {
      act: 'delete-holding',
      names: {
        title: await titleOf(s, held.value.record),
        callNumber: callNumberText(held.value),
        location: await locationName(s, held.value.location),
      },
    };
    return { did, changes: [removal('holding', { ...held, version })] };
  });

/** Moves a holding with its copies to another record; where that has one just there, the copies go into it. */
export const moveHolding = (
  { store }: Services,
  person: number,
  id: number,
  { version, to }: { readonly version: number; readonly to: number },
): Promise<Done> =>
  commitPlan(store, person, async (s) => {
    const held = await holdingThere(s, id);
    if (held.value.record === to) throw wrong('to', 'The holding hangs on this record already.');
    const title = await titleOf(s, to);
    const moving = await withCopies(s, [{ ...held, version }]);
    const kept = await withCopies(s, await s.find('holding', { where: { record: to } }));
    const did: Act = {
      act: 'move-holding',
      names: { title, callNumber: callNumberText(held.value), from: await titleOf(s, held.value.record) },
      counts: { copies: moving[0]!.copies.length },
    };
    return { did, changes: movedStock({ into: to, kept, moving }) };
  });

/** Joins a holding to another of the same record. */
export const joinHolding = (
  { store }: Services,
  person: number,
  id: number,
  { version, to }: { readonly version: number; readonly to: number },
): Promise<Done> =>
  commitPlan(store, person, async (s) => {
    const [held, into] = [await holdingThere(s, id), await holdingThere(s, to)];
    if (id === to) throw wrong('to', 'A holding cannot be joined to itself.');
    if (held.value.record !== into.value.record)
      throw wrong('to', 'These are holdings of two records. Move the holding instead.');
    const copies = await s.find('copy', { where: { holding: id } });
    const did: Act = {
      act: 'join-holdings',
      names: {
        title: await titleOf(s, held.value.record),
        callNumber: callNumberText(into.value),
        from: callNumberText(held.value),
      },
      counts: { copies: copies.length },
    };
    return {
      did,
      changes: [
        removal('holding', { ...held, version }),
        ...copies.map((c) => update('copy', c, { ...c.value, holding: to })),
      ],
    };
  });

async function withCopies(store: Store, holdings: readonly StoredObject<'holding'>[]): Promise<Stocked[]> {
  const copies = await store.find('copy', { where: { holding: holdings.map((h) => h.id) } });
  return holdings.map((holding) => ({
    holding,
    copies: copies.filter((c) => c.value.holding === holding.id),
  }));
}

/** A holding that must be there. */
export async function holdingThere(store: Store, id: number): Promise<StoredObject<'holding'>> {
  const held = await store.read('holding', id);
  if (!held) throw notFound(`Holding ${id}`);
  return held;
}

/** The title of a record that must be there. */
export async function titleOf(store: Store, record: number): Promise<string> {
  const held = await store.read('record', record);
  if (!held) throw notFound(`Record ${record}`);
  return briefOf(held.value).title;
}

/** A location as the library calls it. */
export const locationName = async (store: Store, code: string): Promise<string> =>
  (await store.lists()).value.locations.find((l) => l.code === code)?.name ?? code;
