import type { LookAlike } from '@osier/core/headings';
import type { Transaction } from '../store/database';
import { HEADING_KEY_KIND } from '../store/index-records';
import { keptJson } from '../store/kept-json';
import type { Store } from '../store/store';

const json = (ids: readonly number[]) => ({ ids: JSON.stringify(ids) });

/** Records that carry a heading `h`. */
const USE = `COALESCE((SELECT u.n FROM heading_use u WHERE u.kind = ${HEADING_KEY_KIND} AND u.key = h.key), 0)`;
const RANK = 'rank = score * MAX(records, 1)';

/**
 * Works out what groups of look-alikes are ranked and chosen by: kind and vocabulary, the records that carry their headings, and
 * whether all their pairs are put by.
 */
export async function weighGroups(store: Store, groups: readonly number[], tx: Transaction): Promise<void> {
  if (groups.length === 0) return;
  const member = 'json_each(alike_groups.members) m JOIN headings h ON h.id = m.value';
  await store.run(
    `UPDATE alike_groups SET (kind, vocabulary, records) = (SELECT MIN(h.kind), MIN(h.vocabulary), SUM(${USE}) FROM ${member}),
       parked = NOT EXISTS (SELECT 1 FROM json_each(alike_groups.members) x JOIN json_each(alike_groups.members) y ON x.value < y.value
         JOIN alike_pairs p ON p.a = x.value AND p.b = y.value
         WHERE NOT EXISTS (SELECT 1 FROM distinct_pairs d WHERE d.a = p.a AND d.b = p.b AND d.later = 1))
      WHERE id IN (SELECT value FROM json_each(:ids))`,
    json(groups),
    tx,
  );
  await store.run(
    `UPDATE alike_groups SET ${RANK} WHERE id IN (SELECT value FROM json_each(:ids))`,
    json(groups),
    tx,
  );
}

/** Counts anew the records of the groups in which headings with these keys are; `kind` as keys of records have it. */
export async function recountGroups(
  store: Store,
  keys: readonly (readonly [kind: string, key: string])[],
  tx: Transaction,
): Promise<void> {
  const rows = await store.rows<{ id: number }>(
    `SELECT DISTINCT m.alike_group AS id FROM json_each(:keys) w CROSS JOIN heading_keys k ON k.kind = substr(w.value ->> 0, 9) AND k.key = w.value ->> 1
       CROSS JOIN alike_members m ON m.heading = k.heading`,
    { keys: JSON.stringify(keys) },
  );
  await weighGroups(
    store,
    rows.map((r) => r.id),
    tx,
  );
}

/** Which groups are looked at. */
export interface GroupsAsked {
  readonly kind?: string;
  readonly vocabulary?: string;
  /** Those whose surest pair is the same, or only perhaps. */
  readonly verdict?: 'same' | 'perhaps';
  /** Those that are put by, instead of the others. */
  readonly later?: boolean;
}

/** Where a page of groups begins: behind the group with this rank and number. */
export interface AfterGroup {
  readonly rank: number;
  readonly id: number;
}

/** A group of look-alikes. */
export interface KeptGroup {
  readonly id: number;
  readonly rank: number;
  readonly headings: readonly number[];
  readonly pairs: readonly LookAlike[];
}

const SURE = { same: 'score >= 1', perhaps: 'score < 1' };

const conditionsOf = ({ kind, vocabulary, verdict, later }: GroupsAsked): string =>
  [
    `parked = ${later ? 1 : 0}`,
    ...(kind ? ['kind = :kind'] : []),
    ...(vocabulary ? ['vocabulary = :vocabulary'] : []),
    ...(verdict ? [SURE[verdict]] : []),
  ].join(' AND ');

/** A page of groups; those that are surest and touch most records first. */
export async function pageOfGroups(
  store: Store,
  asked: GroupsAsked,
  after: AfterGroup | null,
  atMost: number,
): Promise<KeptGroup[]> {
  const behind = after ? 'AND (rank < :rank OR (rank = :rank AND id > :id))' : '';
  const groups = await store.rows<{ id: number; rank: number; members: string }>(
    `SELECT id, rank, members FROM alike_groups WHERE ${conditionsOf(asked)} ${behind} ORDER BY rank DESC, id LIMIT :atMost`,
    { ...asked, ...after, atMost },
  );
  const of = groups.map((g) => ({ ...g, headings: keptJson<number[]>(g.members) }));
  const pairs = await store.rows<LookAlike>(
    `SELECT a, b, score, why FROM alike_pairs WHERE a IN (SELECT value FROM json_each(:ids)) ORDER BY score DESC, a, b`,
    json(of.flatMap((g) => g.headings)),
  );
  return of.map(({ id, rank, headings }) => {
    const own = new Set(headings);
    return { id, rank, headings, pairs: pairs.filter((p) => own.has(p.a) && own.has(p.b)) };
  });
}

/** How many groups there are of each kind, vocabulary and verdict; those that are put by by themselves. */
export const countGroups = (
  store: Store,
): Promise<{ kind: string; vocabulary: string; verdict: 'same' | 'perhaps'; later: number; n: number }[]> =>
  store.rows<{ kind: string; vocabulary: string; verdict: 'same' | 'perhaps'; later: number; n: number }>(
    `SELECT kind, vocabulary, CASE WHEN ${SURE.same} THEN 'same' ELSE 'perhaps' END AS verdict, parked AS later, COUNT(*) AS n
       FROM alike_groups GROUP BY 1, 2, 3, 4`,
  );
