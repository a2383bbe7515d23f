import type { Done, PileBody, PileChangeBody, PileDetail, PiledRow, PileRow } from '@osier/contract';
import { creation, removal, update, type Versioned } from '@osier/core/changes';
import { countedOn, type Pile, type PiledKind } from '@osier/core/piles';
import { quoted } from '../daybook/sentences';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';

const PAGE = 200;

/** How many things lie on each pile, those included that are not in the catalogue now. */
async function counts(store: Store): Promise<Map<number, number>> {
  const rows = await store.rows<{ pile: number; n: number }>(
    'SELECT pile, COUNT(DISTINCT object) AS n FROM piled GROUP BY pile',
  );
  return new Map(rows.map((r) => [r.pile, r.n]));
}

/** The piles, newest first. */
export async function listPiles({ store }: Services): Promise<PileRow[]> {
  const on = await counts(store);
  return (await store.select('pile', '1 ORDER BY id DESC')).map((p) => ({
    id: p.id,
    version: p.version,
    ...p.value,
    count: on.get(p.id) ?? 0,
  }));
}

export async function pileThere(store: Store, id: number): Promise<Versioned<Pile>> {
  const pile = await store.read('pile', id);
  if (!pile) throw notFound(`Pile ${id}`);
  return pile;
}

const LIMITS = `LIMIT ${PAGE + 1} OFFSET :after`;
const DISTINCT_ON = 'SELECT DISTINCT object FROM piled WHERE pile = :id';
/** What lies on a pile, in the order of the titles and shelves. */
const ROWS: Record<PiledKind, string> = {
  record: `SELECT r.id AS object, r.id AS record, r.title, r.author, r.year, '' AS barcode, '' AS branch, '' AS location, '' AS status,
      COALESCE((SELECT call_number FROM holdings h WHERE h.record = r.id ORDER BY h.id LIMIT 1), '') AS callNumber
    FROM (${DISTINCT_ON}) p JOIN records r ON r.id = p.object ORDER BY r.sort, r.id ${LIMITS}`,
  copy: `SELECT c.id AS object, r.id AS record, r.title, r.author, r.year, c.barcode, h.branch, h.location, c.status, h.call_number AS callNumber
    FROM (${DISTINCT_ON}) p JOIN copies c ON c.id = p.object JOIN holdings h ON h.id = c.holding JOIN records r ON r.id = h.record
    ORDER BY h.branch, h.shelf_key, r.sort, c.id ${LIMITS}`,
};
const PRESENT: Record<PiledKind, string> = { record: 'records', copy: 'copies' };

/** A pile with a page of what lies on it. */
export async function pileDetail({ store }: Services, id: number, after: number): Promise<PileDetail> {
  const pile = await pileThere(store, id);
  const { of } = pile.value;
  const found = await store.rows<Omit<PiledRow, 'place'> & { branch: string; location: string }>(ROWS[of], {
    id,
    after,
  });
  const n = (await store.row<{ all: number; there: number }>(
    `SELECT COUNT(*) AS "all", COUNT(o.id) AS there FROM (${DISTINCT_ON}) p LEFT JOIN ${PRESENT[of]} o ON o.id = p.object`,
    { id },
  ))!;
  const lists = (await store.lists()).value;
  const nameIn = (list: readonly { code: string; name: string }[], code: string) =>
    list.find((e) => e.code === code)?.name ?? code;
  return {
    id,
    version: pile.version,
    ...pile.value,
    count: n.all,
    gone: n.all - n.there,
    rows: found.slice(0, PAGE).map(({ branch, location, ...row }) => ({
      ...row,
      place: branch ? `${nameIn(lists.branches, branch)}, ${nameIn(lists.locations, location)}` : '',
    })),
    next: found.length > PAGE ? after + PAGE : null,
  };
}

export const newPile = (body: PileBody, by: string): Pile => ({
  name: body.name,
  of: body.of,
  note: body.note,
  by,
  madeOn: new Date().toISOString().slice(0, 10),
});

/** Two piles of one name could not be told apart where one is chosen. */
export async function nameIsFree(store: Store, name: string, but?: number): Promise<void> {
  const same = (await store.select('pile', 'name = :name COLLATE NOCASE', { name })).find(
    (p) => p.id !== but,
  );
  if (same) throw wrong('name', `There is a pile ${quoted(name)} already.`);
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
    const sentence = `Began the pile ${quoted(body.name)}`;
    return { act: 'pile', id, sentence, changes: [creation('pile', id, newPile(body, person.name))] };
  });

export const changePile = (
  { store }: Services,
  person: number,
  id: number,
  body: PileChangeBody,
): Promise<Omit<Done, 'undoable'>> => commitPlan(store, person, (s) => planPileChange(s, id, body));

async function planPileChange(store: Store, id: number, { version, name, note }: PileChangeBody) {
  const pile = await pileThere(store, id);
  await nameIsFree(store, name, id);
  const sentence =
    name === pile.value.name
      ? `Changed the note of the pile ${quoted(name)}`
      : `Named the pile ${quoted(pile.value.name)} ${quoted(name)}`;
  const changes = [update('pile', { ...pile, version }, { ...pile.value, name, note })];
  return { act: 'pile', sentence, changes };
}

/** Takes a pile away, and nothing that lies on it. What lay on it is kept aside, so that taking this back brings all of it back. */
export const removePile = (
  { store }: Services,
  person: number,
  id: number,
  version: number,
): Promise<Omit<Done, 'undoable'>> =>
  commitPlan(store, person, async (s) => {
    const pile = await pileThere(s, id);
    const sentence = `Took the pile ${quoted(pile.value.name)} away`;
    return { act: 'pile', sentence, changes: [removal('pile', { ...pile, version })] };
  });

/** Takes things off a pile; they stay in the catalogue. */
export const takeOff = (
  { store }: Services,
  person: number,
  id: number,
  objects: readonly number[],
): Promise<Omit<Done, 'undoable'>> => commitPlan(store, person, (s) => planTakingOff(s, id, objects));

async function planTakingOff(store: Store, id: number, objects: readonly number[]) {
  const { value: pile } = await pileThere(store, id);
  const rows = await store.select('piled', 'pile = :id AND kind = :of AND object IN (:objects)', {
    id,
    of: pile.of,
    objects,
  });
  if (rows.length === 0) throw wrong('objects', 'None of these lies on the pile.');
  const n = new Set(rows.map((r) => r.value.object)).size;
  const sentence = `Took ${countedOn(pile.of, n)} off the pile ${quoted(pile.name)}`;
  return { act: 'pile', sentence, changes: rows.map((r) => removal('piled', r)) };
}
