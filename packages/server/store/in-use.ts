import { headingGroup, identityOf, type Heading } from '@osier/core/headings';
import type { Transaction } from './database';
import { headingKeyKind } from './index-records';
import type { Store } from './store';

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
