import type { Change } from '@osier/core/kinds';
import type { Checker } from '@osier/core/checks';
import { settleDisputes } from './collisions';
import type { Transaction } from './database';
import { insertRows } from './insert';
import { tableOf } from './tables';
import type { Kind } from '@osier/core/kinds';
import type { Store } from './store';

/** Takes away the rows of what a change set removes, or marks them where they are kept. */
export async function removeRows(
  store: Store,
  kind: Kind,
  changes: readonly Change[],
  tx: Transaction,
): Promise<void> {
  const ids = changes.filter((c) => c.after === null).map((c) => c.id);
  if (ids.length === 0) return;
  const { name: table, keepsRemoved } = tableOf(kind);
  const which = 'id IN (SELECT value FROM json_each(:ids))';
  await store.run(
    keepsRemoved ? `UPDATE ${table} SET gone = 1 WHERE ${which}` : `DELETE FROM ${table} WHERE ${which}`,
    { ids: JSON.stringify(ids) },
    tx,
  );
  if (ids.length === changes.length) await settleDisputes(store, kind, tx);
}

/** Writes the rows of what a change set makes and changes, with their computed columns. */
export async function writeRows<K extends Kind>(
  store: Store,
  kind: K,
  changes: readonly Change<K>[],
  checker: Checker,
  tx: Transaction,
): Promise<void> {
  const { name: table, columns, values, keepsRemoved, inherited } = tableOf(kind);
  const rows = changes.flatMap(({ id, version, after }) =>
    after === null ? [] : [[id, version + 1, JSON.stringify(after), ...values(after, checker)]],
  );
  if (rows.length === 0) return;
  const all = ['id', 'version', 'value', ...columns];
  const taken = [...all.slice(1), ...Object.keys(inherited)].map((c) => `${c} = excluded.${c}`);
  const set = [...taken, ...(keepsRemoved ? ['gone = 0'] : [])].join(', ');
  // An update keeps the row, so that a barcode taken by another copy is still an error.
  await insertRows(store, 'INSERT', table, all, rows, tx, `ON CONFLICT (id) DO UPDATE SET ${set}`, inherited);
  await settleDisputes(store, kind, tx);
}
