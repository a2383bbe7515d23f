import { KINDS } from '@osier/core/kinds';
import type { Projection } from './projection';
import type { Store } from '../store/store';

/**
 * How many records, copies and kept headings there are, and how many records of each delivery stand how. Triggers of the
 * database keep them, so that rows which are written in bulk count too; nothing is to be applied.
 */
export const counts: Projection = {
  name: 'counts',
  version: 1,
  of: ['record', 'copy', 'heading', 'incoming', 'fields'],
  apply: () => Promise.resolve(),
  rebuild: (store) =>
    store.write(async (tx) => {
      for (const [name, table, condition] of TOTALS)
        await store.run(
          `UPDATE counts SET n = (SELECT COUNT(*) FROM ${table} WHERE ${condition}) WHERE name = :name`,
          { name },
          tx,
        );
      await store.run('DELETE FROM delivery_counts', {}, tx);
      await store.run(
        `INSERT INTO delivery_counts (delivery, state, decision, n, copies, problems, errors)
           SELECT i.delivery, i.state, i.decision, COUNT(*), SUM(i.copies), SUM(i.copy_problems), COALESCE(SUM(f.errors > 0), 0)
             FROM incoming i LEFT JOIN incoming_fields f ON f.id = i.id GROUP BY 1, 2, 3`,
        {},
        tx,
      );
    }),
};

const TOTALS = [
  ['records', KINDS.record.table, '1'],
  ['copies', KINDS.copy.table, '1'],
  ['headings', KINDS.heading.table, 'merged_into IS NULL'],
  ['look-alikes', 'alike_groups', 'parked = 0'],
] as const;

/** Name of a total that is kept. */
export type TotalName = (typeof TOTALS)[number][0];

/** The totals of the catalogue. */
export async function totals(store: Store): Promise<Record<TotalName, number>> {
  const rows = await store.rows<{ name: TotalName; n: number }>('SELECT name, n FROM counts');
  const of = new Map(rows.map((r) => [r.name, r.n]));
  return {
    records: of.get('records') ?? 0,
    copies: of.get('copies') ?? 0,
    headings: of.get('headings') ?? 0,
    'look-alikes': of.get('look-alikes') ?? 0,
  };
}
