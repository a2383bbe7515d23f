import { isCompared, lookAlikeGroups, pairsTogether, SAME, type LookAlike } from '@osier/core/headings';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import { weighGroups } from './alike-groups';
import {
  keepNames,
  markNames,
  matesOf,
  unchanged,
  waitingNames,
  type NameRead,
  type NameSeen,
  type NameWork,
} from './alike-names';
import { compareAllNames, seenNames, type NamesSeen } from './all-names';
import type { Projection } from './projection';

/**
 * Pairs of headings that may be one, and the groups they make. An act marks the headings it touches; a worker compares those with
 * the ones that share a bucket with them. What was merged, removed or noted as two leaves its groups at once.
 */
export const alikeHeadings: Projection = {
  name: 'look-alikes',
  version: 7,
  of: ['heading', 'distinct'],
  async apply(store, changes, tx) {
    const touched = changes
      .of('heading')
      .filter((c) => [c.before, c.after].some((h) => h !== null && isCompared(h)))
      .map((c) => c.id);
    const gone = changes
      .of('heading')
      .filter((c) => c.after === null || !isCompared(c.after))
      .map((c) => c.id);
    const said = changes.of('distinct');
    const apart = said.flatMap(({ after }) => (after && !after.later ? [after] : []));
    // Those that are different no longer are compared again.
    const again = said.flatMap(({ before, after }) => (before && !before.later && !after ? [before] : []));
    await markNames(store, [...touched, ...again.flatMap(({ a, b }) => [a, b])], tx);
    const near = new Set(gone);
    for (const d of said.flatMap(({ before, after }) => [before, after])) if (d) near.add(d.a).add(d.b);
    if (near.size === 0) return;
    for (const id of await partnersOf(store, gone)) near.add(id);
    await forgetPairs(store, gone, tx);
    for (const { a, b } of apart)
      await store.run('DELETE FROM alike_pairs WHERE a = :a AND b = :b', { a, b }, tx);
    await regroup(store, near, tx);
  },
  rebuild: (store) =>
    store.write(async (tx) => {
      for (const table of ['names', 'buckets', 'near', 'pairs', 'groups', 'members', 'dirty'])
        await store.run(`DELETE FROM alike_${table}`, {}, tx);
      await store.run(
        'INSERT INTO alike_dirty (heading, place) SELECT id, substr(key, 1, 24) FROM headings WHERE merged_into IS NULL',
        {},
        tx,
      );
    }),
};

const among = (ids: Iterable<number>) => ({ ids: JSON.stringify([...ids]) });
const AMONG = 'IN (SELECT value FROM json_each(:ids))';

/** Headings that make a pair with one of these. */
async function partnersOf(store: Store, headings: readonly number[]): Promise<number[]> {
  const rows = await store.rows<{ id: number }>(
    `SELECT b AS id FROM alike_pairs WHERE a ${AMONG} UNION SELECT a FROM alike_pairs WHERE b ${AMONG}`,
    among(headings),
  );
  return rows.map((r) => r.id);
}

async function forgetPairs(store: Store, headings: readonly number[], tx: Transaction): Promise<void> {
  await store.run(`DELETE FROM alike_pairs WHERE a ${AMONG}`, among(headings), tx);
  await store.run(`DELETE FROM alike_pairs WHERE b ${AMONG}`, among(headings), tx);
}

/** A number for a group that no other has: of its two lowest headings, which are together in no other. */
const numberOf = ([a = 0, b = 0]: readonly number[]): number => a * 2 ** 26 + b;

/** The headings that hang together with these by being the same. */
async function hangingTogether(store: Store, headings: ReadonlySet<number>): Promise<Set<number>> {
  const found = new Set(headings);
  for (let fresh: number[] = [...headings]; fresh.length > 0;) {
    const rows = await store.rows<{ id: number }>(
      `SELECT b AS id FROM alike_pairs WHERE a ${AMONG} AND score >= :same UNION SELECT a FROM alike_pairs WHERE b ${AMONG} AND score >= :same`,
      { ...among(fresh), same: SAME },
    );
    fresh = rows.map((r) => r.id).filter((id) => !found.has(id));
    for (const id of fresh) found.add(id);
  }
  return found;
}

/** Makes the groups anew that headings are or were in. */
async function regroup(store: Store, headings: ReadonlySet<number>, tx: Transaction): Promise<void> {
  const before = await store.rows<{ heading: number }>(
    `SELECT heading FROM alike_members WHERE alike_group IN (SELECT alike_group FROM alike_members WHERE heading ${AMONG})`,
    among(headings),
  );
  const nodes = await hangingTogether(store, new Set([...headings, ...before.map((m) => m.heading)]));
  const old = `IN (SELECT alike_group FROM alike_members WHERE heading ${AMONG})`;
  await store.run(`DELETE FROM alike_groups WHERE id ${old}`, among(nodes), tx);
  await store.run(`DELETE FROM alike_members WHERE alike_group ${old}`, among(nodes), tx);
  const pairs = await store.rows<LookAlike>(
    `SELECT a, b, score, why FROM alike_pairs WHERE a ${AMONG} UNION SELECT a, b, score, why FROM alike_pairs WHERE b ${AMONG}`,
    among(nodes),
  );
  const groups = lookAlikeGroups(pairs);
  const rows = groups.map((g) => [numberOf(g.headings), g.score, JSON.stringify(g.headings)]);
  await insertRows(store, 'INSERT', 'alike_groups', ['id', 'score', 'members'], rows, tx);
  await weighGroups(
    store,
    groups.map((g) => numberOf(g.headings)),
    tx,
  );
  const members = groups.flatMap((g) => g.headings.map((id) => [id, numberOf(g.headings)]));
  await insertRows(store, 'INSERT', 'alike_members', ['heading', 'alike_group'], members, tx);
}

/** Headings whose pairs are kept together; the fewer, the sooner a write that waits has its turn. */
const PIECE = 2000;
/** The same of headings without pairs, of which nothing is written but that they wait no longer; the more at once, the fewer pages are written. */
const ALONE = 40_000;
/** So many that wait, and no fewer than a third of all headings, are compared with all others at one go, which takes about half the time. */
const MANY = 20_000;

/** How names are compared: from how many on all are, and whether it is to be broken off. */
export interface Comparing {
  readonly many?: number;
  readonly isStopped?: () => boolean;
}

/** Compares some of the names that were touched, or all names when many were; gives how many there were, nought when all are compared. */
export async function compareTouched(
  store: Store,
  work: NameWork,
  { many = MANY, isStopped = () => false }: Comparing = {},
): Promise<number> {
  const count = await countWaiting(store);
  const areMany = count >= many && count * 3 >= (await countHeadings(store));
  return areMany ? compareAll(store, work, isStopped) : compareSomeTouched(store, work);
}

async function compareAll(store: Store, work: NameWork, isStopped: () => boolean): Promise<number> {
  const compared = await compareAllNames(store, work, isStopped);
  if (!compared) return 0;
  const { names, pairs } = compared;
  for (const { seen, own } of piecesToKeep(names, pairs)) {
    if (isStopped()) break;
    await store.write((tx) => keepPairs(store.within(tx), seen, own, tx));
  }
  return names.reduce((n, seen) => n + seen.length / 2, 0);
}

/** Headings that are kept together, with their pairs: those that look like nothing as they were read, then whole bunches, so that each group is made once. */
function* piecesToKeep(
  names: readonly NamesSeen[],
  pairs: readonly LookAlike[],
): Generator<{ readonly seen: readonly NameSeen[]; readonly own: readonly LookAlike[] }> {
  const paired = new Map<number, NameSeen | null>(
    pairs.flatMap(({ a, b }) => [a, b]).map((id) => [id, null]),
  );
  let alone: NameSeen[] = [];
  for (const some of names) {
    for (const name of seenNames(some))
      if (paired.has(name.id)) paired.set(name.id, name);
      else alone.push(name);
    if (alone.length < ALONE) continue;
    yield { seen: alone, own: [] };
    alone = [];
  }
  yield { seen: alone, own: [] };
  let own: LookAlike[] = [];
  for (const bunch of pairsTogether(pairs)) {
    for (const pair of bunch) own.push(pair);
    if (own.length < PIECE) continue;
    yield { seen: namesIn(own), own };
    own = [];
  }
  if (own.length) yield { seen: namesIn(own), own };

  function namesIn(some: readonly LookAlike[]): NameSeen[] {
    return [...new Set(some.flatMap(({ a, b }) => [a, b]))].flatMap((id) => paired.get(id) ?? []);
  }
}

async function compareSomeTouched(store: Store, { readForms, compareNames }: NameWork): Promise<number> {
  const waiting = await waitingNames(store);
  const pieces = Array.from({ length: Math.ceil(waiting.length / PIECE) }, (_, i) => {
    const piece = waiting.slice(i * PIECE, (i + 1) * PIECE);
    // The next ones are read while the first are compared; what fails is told when their turn comes.
    const reading = readForms(piece);
    reading.catch(() => undefined);
    return [piece, reading] as const;
  });
  let comparing: Promise<void> = Promise.resolve();
  for (const [piece, reading] of pieces) {
    const read = await reading;
    const kept = await store.write((tx) => keepNames(store.within(tx), piece, read, tx));
    await comparing;
    // The next names are kept meanwhile; whatever these have in common with them is found by one or the other.
    comparing = comparePiece(
      piece,
      read.filter(({ id }) => kept.has(id)),
    );
    comparing.catch(() => undefined);
  }
  await comparing;
  return waiting.length;

  async function comparePiece(piece: readonly NameSeen[], read: readonly NameRead[]): Promise<void> {
    const pairs = await compareNames(await matesOf(store, read));
    await store.write((tx) => keepPairs(store.within(tx), piece, pairs, tx));
  }
}

/** Keeps pairs but those that a person told apart, and those of names that went while they were compared. */
async function insertPairs(store: Store, pairs: readonly LookAlike[], tx: Transaction): Promise<void> {
  const rows = pairs.map((p) => [p.a, p.b, p.score, p.why]);
  await insertRows(store, 'INSERT OR REPLACE', 'alike_pairs', ['a', 'b', 'score', 'why'], rows, tx);
  await store.run(
    `DELETE FROM alike_pairs WHERE a ${AMONG} AND (EXISTS (SELECT 1 FROM distinct_pairs d WHERE d.a = alike_pairs.a AND d.b = alike_pairs.b AND d.later = 0)
       OR NOT EXISTS (SELECT 1 FROM headings h WHERE h.id = alike_pairs.a AND h.merged_into IS NULL)
       OR NOT EXISTS (SELECT 1 FROM headings h WHERE h.id = alike_pairs.b AND h.merged_into IS NULL))`,
    among(pairs.map((p) => p.a)),
    tx,
  );
}

async function keepPairs(
  store: Store,
  waiting: readonly NameSeen[],
  pairs: readonly LookAlike[],
  tx: Transaction,
): Promise<void> {
  // What was written meanwhile is compared once more.
  const ids = [...(await unchanged(store, waiting))];
  const done = new Set(ids);
  // One that has and had no pair is in no group.
  const near = new Set(await partnersOf(store, ids));
  await store.run(`DELETE FROM alike_dirty WHERE heading ${AMONG}`, among(ids), tx);
  if (near.size > 0) await forgetPairs(store, ids, tx);
  const fresh = pairs.filter((p) => done.has(p.a) || done.has(p.b));
  if (fresh.length > 0) await insertPairs(store, fresh, tx);
  for (const p of fresh) near.add(p.a).add(p.b);
  await regroup(store, near, tx);
}

/** The headings that look like each of some. */
export async function partnersAmong(
  store: Store,
  headings: readonly number[],
): Promise<Map<number, Set<number>>> {
  const rows = await store.rows<{ a: number; b: number }>(
    `SELECT a, b FROM alike_pairs WHERE a ${AMONG} UNION SELECT b, a FROM alike_pairs WHERE b ${AMONG}`,
    among(headings),
  );
  const found = new Map<number, Set<number>>();
  for (const { a, b } of rows) found.set(a, (found.get(a) ?? new Set<number>()).add(b));
  return found;
}

/** How many names wait to be compared. */
export const countWaiting = async (store: Store): Promise<number> =>
  (await store.row<{ n: number }>('SELECT COUNT(*) AS n FROM alike_dirty'))!.n;

const countHeadings = async (store: Store): Promise<number> =>
  (await store.row<{ n: number }>('SELECT COUNT(*) AS n FROM headings'))!.n;
