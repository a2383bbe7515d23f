import type { Done, PileBody, PileChangeBody, PileDetail, PileRow } from '@osier/contract';
import { creation, removal, update } from '@osier/core/changes';
import type { Pile } from '@osier/core/piles';
import type { StoredObject } from '@osier/core/kinds';
import { quoted } from '@osier/core/acts';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { countLying, countPiled, pageOfPile, pilesNamed, type AfterPiled } from './queries';
import { cursorOf, placeIn } from '../http/cursor';
import { pileAct } from './pile-act';

const PAGE = 200;

/** The piles, newest first. */
export async function listPiles({ store }: Services): Promise<PileRow[]> {
  const on = new Map((await countPiled(store)).map((p) => [p.pile, p.n]));
  return (await store.find('pile', { order: [['id', 'DESC']] })).map((p) => ({
    id: p.id,
    version: p.version,
    ...p.value,
    count: on.get(p.id) ?? 0,
  }));
}

/** A pile; 404 when it is not there. */
export async function pileThere(store: Store, id: number): Promise<StoredObject<'pile'>> {
  const pile = await store.read('pile', id);
  if (!pile) throw notFound(`Pile ${id}`);
  return pile;
}

/** A pile with a page of what lies on it. */
export async function pileDetail(
  { store }: Services,
  id: number,
  cursor: string | undefined,
): Promise<PileDetail> {
  const after = placeIn<AfterPiled>(cursor, ['', '', 0]);
  const pile = await pileThere(store, id);
  const { of } = pile.value;
  const found = await pageOfPile(store, of, { pile: id, after, atMost: PAGE + 1 });
  const last = found[PAGE - 1];
  const n = await countLying(store, id, of);
  const lists = (await store.lists()).value;
  const nameIn = (list: readonly { code: string; name: string }[], code: string) =>
    list.find((e) => e.code === code)?.name ?? code;
  return {
    id,
    version: pile.version,
    ...pile.value,
    count: n.all,
    gone: n.all - n.there,
    rows: found.slice(0, PAGE).map(({ branch, location, shelf: _s, sort: _t, ...row }) => ({
      ...row,
      place: branch ? `${nameIn(lists.branches, branch)}, ${nameIn(lists.locations, location)}` : '',
    })),
    next: found.length > PAGE && last ? cursorOf([last.shelf, last.sort, last.object]) : null,
  };
}

/** A pile as a person begins it. */
export const newPile = (body: PileBody, by: string): Pile => ({
  name: body.name,
  of: body.of,
  note: body.note,
  by,
  madeOn: new Date().toISOString().slice(0, 10),
});

/** Two piles of one name could not be told apart where one is chosen. */
export async function nameIsFree(store: Store, name: string, but?: number): Promise<void> {
  if ((await pilesNamed(store, name)).some((id) => id !== but))
    throw wrong('name', `There is a pile ${quoted(name)} already.`);
}

/** Makes an empty pile. */
export const makePile = (
  { store }: Services,
  person: { id: number; name: string },
  body: PileBody,
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person.id, async (s) => {
    await nameIsFree(s, body.name);
    const id = await s.nextIds('pile', 1);
    return {
      did: pileAct(body.name, { how: 'began' }),
      id,
      changes: [creation('pile', id, newPile(body, person.name))],
    };
  });

/** Changes name and note of a pile. */
export const changePile = (
  { store }: Services,
  person: number,
  id: number,
  body: PileChangeBody,
): Promise<Done> => commitPlan(store, person, (s) => planPileChange(s, id, body));

async function planPileChange(store: Store, id: number, { version, name, note }: PileChangeBody) {
  const pile = await pileThere(store, id);
  await nameIsFree(store, name, id);
  const did = pileAct(
    name,
    name === pile.value.name ? { how: 'note' } : { how: 'renamed', from: pile.value.name },
  );
  const changes = [update('pile', { ...pile, version }, { ...pile.value, name, note })];
  return { did, changes };
}

/** Takes a pile away, and nothing that lies on it. What lay on it is kept aside, so that taking this back brings all of it back. */
export const removePile = ({ store }: Services, person: number, id: number, version: number): Promise<Done> =>
  commitPlan(store, person, async (s) => {
    const pile = await pileThere(s, id);
    return {
      did: pileAct(pile.value.name, { how: 'deleted' }),
      changes: [removal('pile', { ...pile, version })],
    };
  });

/** Takes things off a pile; they stay in the catalogue. */
export const takeOff = (
  { store }: Services,
  person: number,
  id: number,
  objects: readonly number[],
): Promise<Done> => commitPlan(store, person, (s) => planTakingOff(s, id, objects));

async function planTakingOff(store: Store, id: number, objects: readonly number[]) {
  const { value: pile } = await pileThere(store, id);
  const rows = await store.find('piled', { where: { pile: id, kind: pile.of, object: [...objects] } });
  if (rows.length === 0) throw wrong('objects', 'None of these is on the pile.');
  const n = new Set(rows.map((r) => r.value.object)).size;
  const did = pileAct(pile.name, { how: 'removed', of: pile.of, count: n });
  return { did, changes: rows.map((r) => removal('piled', r)) };
}
