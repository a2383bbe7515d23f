import { DatabaseError, UniqueConstraintError } from 'sequelize';
import type { ChangesByKind } from './changes-by-kind';
import type { Stale } from './conflict';
import type { Transaction } from './database';
import type { Checker } from '@osier/core/checks';
import type { ColumnValue, Kind, Once } from '@osier/core/kinds';
import { tableOf, testSql } from './tables';
import type { Store } from './store';

/** Whether the database refused a row because what there is only once would be there twice. */
export const isCollision = (error: unknown): boolean =>
  error instanceof UniqueConstraintError ||
  (error instanceof DatabaseError && /UNIQUE constraint failed/.test(error.message));

/** Rows of a kind that share what there is only once with others, as a condition on `t` and `o`. */
const shared = ({ columns, anyCase }: Once): string =>
  columns.map((c) => `o.${c} = t.${c}${anyCase ? ' COLLATE NOCASE' : ''}`).join(' AND ');
const among = (once: Once, alias: string): string => `AND ${testSql(once.among, alias)}`;

/**
 * What has already what these changes would give something else: the barcode, the name, the place. Two changes of one act that
 * collide with each other are found too.
 */
export async function collisions(store: Store, byKind: ChangesByKind): Promise<Stale[]> {
  const found = new Map<string, Stale>();
  const checker = await store.checkerNow();
  for (const kind of byKind.kinds) {
    const { name: table, once, columns, keepsRemoved, inherited } = tableOf(kind);
    const rows = rowsOf(byKind, kind, checker);
    if (once.length === 0 || rows.length === 0) continue;
    const names = ['id', ...columns, ...(keepsRemoved ? ['gone'] : [])];
    const mine = `SELECT ${names.map((n, i) => `json_extract(value, '$[${i}]') AS ${n}`).join(', ')} FROM json_each(:rows)`;
    const looked = Object.entries(inherited).map(([c, sql]) => `, ${sql.replace(/:(\w+)/g, 'm.$1')} AS ${c}`);
    const given = `SELECT m.*${looked.join('')} FROM (${mine}) m`;
    for (const one of once) {
      const taken = await store.rows<{ id: number; as: string }>(
        `SELECT o.id, json_array(${one.columns.map((c) => `t.${c}`).join(', ')}) AS "as" FROM (${given}) t JOIN ${table} o ON ${shared(one)} AND o.id <> t.id
          WHERE o.disputed = 0 ${among(one, 't')} ${among(one, 'o')} LIMIT 20`,
        { rows: JSON.stringify(rows) },
      );
      for (const { id, as } of taken) {
        const current = await store.read(kind, id);
        found.set(`${kind} ${id}`, { kind, id, current, takes: `${one.columns.at(-1)} ${as}` });
      }
    }
  }
  return [...found.values()];
}

/** What a change set writes of a kind, as rows of its id and computed columns. */
function rowsOf<K extends Kind>(byKind: ChangesByKind, kind: K, checker: Checker): ColumnValue[][] {
  const { values, keepsRemoved } = tableOf(kind);
  return byKind
    .of(kind)
    .flatMap(({ id, after }) =>
      after === null ? [] : [[id, ...values(after, checker), ...(keepsRemoved ? [0] : [])]],
    );
}

/**
 * Ends the dispute of rows that no longer share anything with another one and hang on what is there. One of several alike
 * comes out of it, never two at once.
 */
export async function settleDisputes(store: Store, kind: Kind, tx: Transaction): Promise<void> {
  const { name: table, once } = tableOf(kind);
  if (once.length === 0) return;
  const any = await store.row(`SELECT 1 AS n FROM ${table} WHERE disputed = 1 LIMIT 1`);
  if (!any) return;
  const alike = once.map(
    (one) =>
      `AND NOT EXISTS (SELECT 1 FROM ${table} o WHERE ${shared(one)} AND (o.disputed = 0 OR o.id < t.id) AND o.id <> t.id ${among(one, 't')} ${among(one, 'o')})`,
  );
  const whole = HANGS_ON[kind] ?? '';
  await store.run(
    `UPDATE ${table} AS t SET disputed = 0 WHERE t.disputed = 1 ${whole} ${alike.join(' ')}`,
    {},
    tx,
  );
}
const HANGS_ON: { readonly [K in Kind]?: string } = {
  holding: 'AND t.record IS NOT NULL',
  copy: "AND t.holding IS NOT NULL AND t.barcode <> ''",
  distinct: 'AND t.a < t.b',
};
