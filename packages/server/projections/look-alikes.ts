import {
  alikeBuckets,
  comparedHeading,
  isCompared,
  lookAlikeGroups,
  SAME,
  type LookAlike,
} from '@osier/core/headings';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import { weighGroups } from './alike-groups';
import type { Projection } from './projection';

/**
 * Pairs of headings that may be one, and the groups they make. An act marks the headings it touches; a worker compares those with
 * the ones that share a bucket with them. What was merged, removed or noted as two leaves its groups at once.
 */
export const alikeHeadings: Projection = {
  name: 'look-alikes',
  version: 3,
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
    await mark(store, [...touched, ...again.flatMap(({ a, b }) => [a, b])], tx);
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
      for (const table of ['names', 'buckets', 'pairs', 'groups', 'members', 'dirty'])
        await store.run(`DELETE FROM alike_${table}`, {}, tx);
      await store.run(
        'INSERT INTO alike_dirty (heading) SELECT id FROM headings WHERE merged_into IS NULL',
        {},
        tx,
      );
    }),
};

const mark = (store: Store, headings: readonly number[], tx: Transaction): Promise<void> =>
  insertRows(
    store,
    'INSERT OR IGNORE',
    'alike_dirty',
    ['heading'],
    headings.map((id) => [id]),
    tx,
  );

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

/**
 * How names are compared: in a worker of the server, or on the spot for a store that is opened by itself. Each name is JSON of a
 * `ComparedHeading`, so that whoever asks need not read the thousands that a few are compared with.
 */
export type CompareNames = (names: readonly string[], touched: readonly number[]) => Promise<LookAlike[]>;

const AT_ONCE = 500;

/** Compares some of the names that were touched; gives how many there were, nought when all are compared. */
export async function compareTouched(store: Store, compare: CompareNames): Promise<number> {
  const dirty = await store.rows<{ heading: number }>(
    `SELECT heading FROM alike_dirty ORDER BY heading LIMIT ${AT_ONCE}`,
  );
  if (dirty.length === 0) return 0;
  const ids = dirty.map((d) => d.heading);
  const held = await store.readMany('heading', ids);
  const names = held.flatMap(({ id, value }) => comparedHeading({ id, heading: value }) ?? []);
  const buckets = names.flatMap((n) => alikeBuckets(n).map((bucket) => [bucket, n.id] as const));
  const own = names.map((n) => [n.id, JSON.stringify(n)] as const);
  const mates = await matesOf(store, buckets, ids);
  const all = [...own.map(([, name]) => name), ...mates];
  const pairs = await compare(
    all,
    names.map((n) => n.id),
  );
  await store.write(async (tx) => {
    const inside = store.within(tx);
    // What was written meanwhile is marked anew, and stays so.
    const now = new Map((await inside.readMany('heading', ids)).map((h) => [h.id, h.version]));
    const was = new Map(held.map((h) => [h.id, h.version]));
    const done = ids.filter((id) => now.get(id) === was.get(id));
    await keepPairs(inside, new Set(done), { names: own, buckets, pairs }, tx);
  });
  return ids.length;
}

/** Names (JSON) beside some that share a bucket with them. */
async function matesOf(
  store: Store,
  buckets: readonly (readonly [string, number])[],
  but: readonly number[],
): Promise<string[]> {
  const rows = await store.rows<{ name: string }>(
    `SELECT n.name FROM alike_names n WHERE n.heading IN
       (SELECT b.heading FROM json_each(:buckets) w CROSS JOIN alike_buckets b ON b.bucket = w.value)
      AND n.heading NOT IN (SELECT value FROM json_each(:but))`,
    { buckets: JSON.stringify([...new Set(buckets.map(([bucket]) => bucket))]), but: JSON.stringify(but) },
  );
  return rows.map((r) => r.name);
}

/** What comparing gave. */
interface Compared {
  readonly names: readonly (readonly [heading: number, name: string])[];
  readonly buckets: readonly (readonly [bucket: string, heading: number])[];
  readonly pairs: readonly LookAlike[];
}

async function keepPairs(
  store: Store,
  done: ReadonlySet<number>,
  { names, buckets, pairs }: Compared,
  tx: Transaction,
): Promise<void> {
  const ids = [...done];
  const near = new Set([...ids, ...(await partnersOf(store, ids))]);
  for (const table of ['alike_dirty', 'alike_names', 'alike_buckets'])
    await store.run(`DELETE FROM ${table} WHERE heading ${AMONG}`, among(ids), tx);
  const kept = names.filter(([id]) => done.has(id));
  await insertRows(store, 'INSERT', 'alike_names', ['heading', 'name'], kept, tx);
  const own = buckets.filter(([, id]) => done.has(id));
  await insertRows(store, 'INSERT OR IGNORE', 'alike_buckets', ['bucket', 'heading'], own, tx);
  await forgetPairs(store, ids, tx);
  const fresh = pairs.filter((p) => done.has(p.a) || done.has(p.b));
  const rows = fresh.map((p) => [p.a, p.b, p.score, p.why]);
  await insertRows(store, 'INSERT OR REPLACE', 'alike_pairs', ['a', 'b', 'score', 'why'], rows, tx);
  // Two people that a person told apart, and names that went while they were compared.
  await store.run(
    `DELETE FROM alike_pairs WHERE (a ${AMONG} OR b ${AMONG}) AND (EXISTS (SELECT 1 FROM distinct_pairs d WHERE d.a = alike_pairs.a AND d.b = alike_pairs.b AND d.later = 0)
       OR NOT EXISTS (SELECT 1 FROM headings h WHERE h.id = alike_pairs.a AND h.merged_into IS NULL)
       OR NOT EXISTS (SELECT 1 FROM headings h WHERE h.id = alike_pairs.b AND h.merged_into IS NULL))`,
    among(ids),
    tx,
  );
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

/** The established headings (JSON of a `ComparedHeading`) that share a bucket with some. */
export async function establishedIn(store: Store, buckets: readonly string[]): Promise<string[]> {
  const rows = await store.rows<{ name: string }>(
    `SELECT DISTINCT n.name FROM json_each(:buckets) w CROSS JOIN alike_buckets b ON b.bucket = w.value
       JOIN headings h ON h.id = b.heading AND h.established = 1 AND h.merged_into IS NULL JOIN alike_names n ON n.heading = h.id LIMIT 500`,
    { buckets: JSON.stringify(buckets) },
  );
  return rows.map((r) => r.name);
}

/** How many names wait to be compared. */
export const countWaiting = async (store: Store): Promise<number> =>
  (await store.row<{ n: number }>('SELECT COUNT(*) AS n FROM alike_dirty'))!.n;
