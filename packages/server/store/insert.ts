import type { Database, Transaction } from './database';

const ROWS_AT_ONCE = 1000;

/**
 * Inserts rows of numbers, texts and nulls; `verb` as SQLite has it (INSERT, INSERT OR IGNORE), `suffix` an upsert
 * clause, `derived` columns that are looked up from others (`:name`). The rows go over as one JSON value: binding thousands of single values takes the driver far longer.
 */
export async function insertRows(
  db: Database,
  verb: string,
  table: string,
  columns: readonly string[],
  rows: readonly (readonly unknown[])[],
  tx: Transaction,
  suffix = '',
  derived: Readonly<Record<string, string>> = {},
): Promise<void> {
  const valueOf = (column: string) => `json_extract(row.value, '$[${columns.indexOf(column)}]')`;
  const looked = Object.values(derived).map((sql) =>
    sql.replace(/:(\w+)/g, (_, column: string) => valueOf(column)),
  );
  const values = [...columns.map(valueOf), ...looked].join(', ');
  const names = [...columns, ...Object.keys(derived)].join(', ');
  const sql = `${verb} INTO ${table} (${names}) SELECT ${values} FROM json_each($1) row WHERE true ${suffix}`;
  for (let at = 0; at < rows.length; at += ROWS_AT_ONCE)
    await db.bind(sql, [JSON.stringify(rows.slice(at, at + ROWS_AT_ONCE))], tx);
}
