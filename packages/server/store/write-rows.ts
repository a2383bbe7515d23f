import type { Change } from '@osier/core/kinds';
import type { Checker } from '@osier/core/checks';
import { isCollision, settleDisputes } from './collisions';
import type { Transaction } from './database';
import { inSlices } from './in-slices';
import { insertRows } from './insert';
import { inheritedAnew, tableOf, type Table } from './tables';
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
  const { name: table, columns, values, keepsRemoved, inherited, once } = tableOf(kind);
  const made = await inSlices(changes, ({ id, version, after }) =>
    after === null ? [] : [[id, version + 1, JSON.stringify(after), ...values(after, checker)]],
  );
  const rows = made.flat();
  if (rows.length === 0) return;
  const all = ['id', 'version', 'value', ...columns];
  const taken = [...all.slice(1), ...Object.keys(inherited)].map((c) => `${c} = excluded.${c}`);
  const set = [...taken, ...(keepsRemoved ? ['gone = 0'] : [])].join(', ');
  // An update keeps the row, so that a barcode taken by another copy is still an error.
  const upsert = () =>
    insertRows(store, 'INSERT', table, all, rows, tx, `ON CONFLICT (id) DO UPDATE SET ${set}`, inherited);
  try {
    await upsert();
  } catch (error) {
    if (!isCollision(error) || once.length === 0) throw error;
    const ids = JSON.stringify(rows.map((r) => r[0]));
    await exchanging(store, tableOf(kind), ids, tx, upsert);
  }
  await settleDisputes(store, kind, tx);
}

/** Gives what hangs on changed objects of a kind the columns that it inherits from them. */
export async function passOn(
  store: Store,
  kind: Kind,
  changes: readonly Change[],
  tx: Transaction,
): Promise<void> {
  const statements = inheritedAnew(kind);
  const ids = changes.flatMap(({ id, before, after }) => (before !== null && after !== null ? [id] : []));
  if (ids.length === 0) return;
  for (const sql of statements) await store.run(sql, { ids: JSON.stringify(ids) }, tx);
}

/**
 * Writes rows that take from each other what there is only once (two copies their barcodes): they stand outside the unique indexes, and
 * have no name of their own, while they are written. Throws what the database refuses when they are back: then something else has it.
 */
async function exchanging<K extends Kind>(
  store: Store,
  { name: table, once }: Table<K>,
  ids: string,
  tx: Transaction,
  write: () => Promise<void>,
): Promise<void> {
  const rows = await store.rows<{ id: number }>(
    `SELECT id FROM ${table} WHERE disputed = 0 AND id IN (SELECT value FROM json_each(:ids))`,
    { ids },
    tx,
  );
  const held = { ids: JSON.stringify(rows.map((r) => r.id)) };
  const which = 'WHERE id IN (SELECT value FROM json_each(:ids))';
  const alone = once.flatMap(({ columns: [column, ...more] }) =>
    column !== undefined && more.length === 0 ? [`, ${column} = char(1) || id`] : [],
  );
  await store.run(`UPDATE ${table} SET disputed = 1${alone.join('')} ${which}`, held, tx);
  await write();
  await store.run(`UPDATE ${table} SET disputed = 0 ${which}`, held, tx);
}
