import { headingGroup, identityOf, type Heading } from '@osier/core/headings';
import type { Transaction } from './database';
import { headingKeyKind } from './index-records';
import type { Kind } from './kinds';
import type { Store } from './store';

/** What hangs on what: the child kind, its field that names the parent, and how the children of parents are found. */
export const CHILDREN: readonly {
  readonly kind: Kind;
  readonly child: Kind;
  readonly field: string;
  readonly sql: string;
}[] = [
  {
    kind: 'record',
    child: 'holding',
    field: 'record',
    sql: 'SELECT id, record AS parent FROM holdings WHERE record IN (:ids)',
  },
  {
    kind: 'holding',
    child: 'copy',
    field: 'holding',
    sql: 'SELECT id, holding AS parent FROM copies WHERE holding IN (:ids)',
  },
  {
    kind: 'pile',
    child: 'piled',
    field: 'pile',
    sql: 'SELECT id, pile AS parent FROM piled WHERE pile IN (:ids)',
  },
  {
    kind: 'stocktake',
    child: 'scanbatch',
    field: 'stocktake',
    sql: 'SELECT id, stocktake AS parent FROM scan_batches WHERE stocktake IN (:ids)',
  },
  {
    kind: 'heading',
    child: 'heading',
    field: 'mergedInto',
    sql: 'SELECT id, merged_into AS parent FROM headings WHERE merged_into IN (:ids)',
  },
  {
    kind: 'heading',
    child: 'distinct',
    field: 'a',
    sql: 'SELECT id, a AS parent FROM distinct_pairs WHERE a IN (:ids)',
  },
  {
    kind: 'heading',
    child: 'distinct',
    field: 'b',
    sql: 'SELECT id, b AS parent FROM distinct_pairs WHERE b IN (:ids)',
  },
  {
    kind: 'delivery',
    child: 'incoming',
    field: 'delivery',
    sql: "SELECT id, delivery AS parent FROM incoming WHERE delivery IN (:ids) AND state = 'accepted'",
  },
];

/**
 * Which of some headings are carried by a record that is not among `touched`, by their places in the list. One such record
 * is enough: a heading that thousands have is not looked through.
 */
export async function headingsInUse(
  store: Store,
  headings: readonly Heading[],
  touched: Iterable<number>,
  tx?: Transaction,
): Promise<Set<number>> {
  if (headings.length === 0) return new Set();
  const found = await store.rows<{ place: number }>(
    `SELECT h.key AS place FROM json_each(:headings) h WHERE EXISTS (
       SELECT 1 FROM record_keys k WHERE k.kind = h.value ->> 0 AND k.key = h.value ->> 1
         AND k.record NOT IN (SELECT t.value FROM json_each(:touched) t))`,
    {
      headings: JSON.stringify(headings.map(identityOf).map((h) => [headingKeyKind(headingGroup(h)), h.key])),
      touched: JSON.stringify([...touched]),
    },
    tx,
  );
  return new Set(found.map((f) => f.place));
}
