import type { Kind } from '@osier/core/kinds';
import type { Store } from './store';

/** The number of the last entry of the daybook, 0 for none. */
export const lastEntry = async (store: Store): Promise<number> =>
  (await store.row<{ id: number }>('SELECT COALESCE(MAX(id), 0) AS id FROM daybook'))?.id ?? 0;

/** One object of some act. */
export type ObjectOf = readonly [kind: Kind, id: number];

/** Which of some objects entries behind `entry` have changed, but for one's own entry. As `kind id`. */
export async function changedSince(
  store: Store,
  objects: readonly ObjectOf[],
  entry: number,
  own: number | undefined,
): Promise<Set<string>> {
  const rows = await store.rows<{ kind: string; object: number }>(
    `SELECT DISTINCT o.kind, o.object FROM json_each(:objects) w CROSS JOIN daybook_objects o ON o.kind = w.value ->> 0 AND o.object = w.value ->> 1
      WHERE o.entry > :entry AND o.entry <> :own`,
    { objects: JSON.stringify(objects), entry, own: own ?? 0 },
  );
  return new Set(rows.map((r) => `${r.kind} ${r.object}`));
}
