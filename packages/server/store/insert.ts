import type { Database, Transaction } from './database';

const ROWS_AT_ONCE = 1000;

/**
 * Inserts rows of numbers, texts and nulls; `verb` as SQLite has it (INSERT, INSERT OR IGNORE), `suffix` an upsert
 * clause. The rows go over as one JSON value: binding thousands of single values takes the driver far longer.
 */
export async function insertRows(
  db: Database,
  verb: string,
  table: string,
  columns: readonly string[],
  rows: readonly (readonly unknown[])[],
  tx: Transaction,
  suffix = '',
): Promise<void> {
  const values = columns.map((_, i) => `json_extract(value, '$[${i}]')`).join(', ');
  const sql = `${verb} INTO ${table} (${columns.join(', ')}) SELECT ${values} FROM json_each($1) WHERE true ${suffix}`;
  for (let at = 0; at < rows.length; at += ROWS_AT_ONCE)
    await db.bind(sql, [JSON.stringify(rows.slice(at, at + ROWS_AT_ONCE))], tx);
}
