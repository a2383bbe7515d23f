import type { Transaction } from 'sequelize';
import type { Database } from './database';

const ROWS_AT_ONCE = 200;

/** Inserts rows in statements of a few hundred; `verb` as SQLite has it (INSERT, INSERT OR IGNORE, INSERT OR REPLACE), `suffix` an upsert clause. */
export async function insertRows(
  db: Database,
  verb: string,
  table: string,
  columns: readonly string[],
  rows: readonly (readonly unknown[])[],
  tx: Transaction,
  suffix = '',
): Promise<void> {
  const one = `(${columns.map(() => '?').join(',')})`;
  for (let at = 0; at < rows.length; at += ROWS_AT_ONCE) {
    const part = rows.slice(at, at + ROWS_AT_ONCE);
    const sql = `${verb} INTO ${table} (${columns.join(',')}) VALUES ${numbered(one, part.length)} ${suffix}`;
    await db.sequelize.query(sql, { bind: part.flat().map((v) => v ?? null), transaction: tx });
  }
}

/** Bound values are numbered from $1 over the whole statement. */
function numbered(one: string, rows: number): string {
  let n = 0;
  return Array.from({ length: rows }, () => one.replace(/\?/g, () => `$${++n}`)).join(',');
}
