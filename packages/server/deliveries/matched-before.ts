import type { Transaction } from '../store/database';
import type { Store } from '../store/store';

/**
 * Keeps with a delivery that it is matched from now on: whatever is written by this or a later entry of the daybook may be
 * missed. Long work that is under way goes on writing under the entry it began.
 */
export const keepMatchedBefore = (store: Store, delivery: number, tx: Transaction): Promise<void> =>
  store.run(
    `UPDATE readings SET since = MIN((SELECT COALESCE(MAX(id), 0) + 1 FROM daybook),
       COALESCE((SELECT MIN(entry) FROM jobs WHERE state IN ('running', 'waiting') AND entry IS NOT NULL), 9e15)) WHERE delivery = :delivery`,
    { delivery },
    tx,
  );

/** The first entry of the daybook that the matching of a delivery does not know. */
export async function matchedBefore(store: Store, delivery: number): Promise<number> {
  const row = await store.row<{ since: number }>('SELECT since FROM readings WHERE delivery = :delivery', {
    delivery,
  });
  return row?.since ?? 0;
}
