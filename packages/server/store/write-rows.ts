import type { Change } from '@osier/core/changes';
import type { HouseRules } from '@osier/core/house';
import { settleDisputes } from './collisions';
import type { Transaction } from './database';
import { insertRows } from './insert';
import { KINDS, type Kind, type Objects } from './kinds';
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
  const { table, keepsRemoved } = KINDS[kind];
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
  changes: readonly Change[],
  house: HouseRules,
  tx: Transaction,
): Promise<void> {
  const { table, columns, compute, keepsRemoved, derived = {} } = KINDS[kind];
  const written = changes.filter((c) => c.after !== null);
  const rows = written.map((c) => [
    c.id,
    c.version + 1,
    JSON.stringify(c.after),
    ...compute(c.after as Objects[K], house),
  ]);
  if (rows.length === 0) return;
  const all = ['id', 'version', 'value', ...columns];
  const taken = [...all.slice(1), ...Object.keys(derived)].map((c) => `${c} = excluded.${c}`);
  const set = [...taken, ...(keepsRemoved ? ['gone = 0'] : [])].join(', ');
  // An update keeps the row, so that a barcode taken by another copy is still an error.
  await insertRows(store, 'INSERT', table, all, rows, tx, `ON CONFLICT (id) DO UPDATE SET ${set}`, derived);
  await settleDisputes(store, kind, tx);
}
