import type { Checker } from '@osier/core/checks';
import {
  KIND_NAMES,
  KINDS,
  type ColumnTest,
  type ColumnValue,
  type Kind,
  type KindValue,
  type Once,
} from '@osier/core/kinds';

/** How a kind is kept: its table and columns, made from its descriptor. */
export interface Table<K extends Kind> {
  readonly name: string;
  /** `gone = 0` where removed objects keep their rows, else true. */
  readonly present: string;
  readonly keepsRemoved: boolean;
  readonly columns: readonly string[];
  /** The computed columns of a value, in the order of `columns`. */
  values(value: KindValue<K>, checker: Checker): ColumnValue[];
  /** Columns that are looked up in a parent when a row is written, each as SQL over the row's other columns (`:name`). */
  readonly inherited: Readonly<Record<string, string>>;
  readonly once: readonly Once[];
}

/** The table of a kind. */
export function tableOf<K extends Kind>(kind: K): Table<K> {
  const { table, columns, compute, keepsRemoved = false, inherited = {}, once = [] } = KINDS[kind];
  const names = Object.keys(columns);
  const looked = Object.entries(inherited).map(([column, { from, column: theirs }]) => {
    const parent = KINDS[kind].parents.find((p) => p.column === from);
    if (!parent) throw new Error(`${kind}.${column} is inherited from ${from}, which names no parent.`);
    return [column, `(SELECT p.${theirs} FROM ${tableName(parent.kind)} p WHERE p.id = :${from})`] as const;
  });
  return {
    name: table,
    present: keepsRemoved ? 'gone = 0' : '1',
    keepsRemoved,
    columns: names,
    values(value, checker) {
      const computed: Readonly<Record<string, ColumnValue>> = compute(value, checker);
      return names.map((n) => computed[n] ?? null);
    },
    inherited: Object.fromEntries(looked),
    once,
  };
}

const tableName = (kind: string): string =>
  KIND_NAMES.filter((k) => k === kind).map((k) => KINDS[k].table)[0] ?? '';

/** A test of a column in SQL, for a row called `alias`. */
export function testSql(test: ColumnTest | undefined, alias: string): string {
  if (!test) return '1';
  const column = `${alias}.${test.column}`;
  if ('above' in test) return `${column} > ${test.above}`;
  if (test.is === null) return `${column} IS NULL`;
  return typeof test.is === 'number' ? `${column} = ${test.is}` : `${column} = '${test.is}'`;
}

/** SQL that copies columns anew to the rows that hang on some rows of a kind (`:ids`); none where nothing inherits from it. */
export const inheritedAnew = (kind: Kind): string[] =>
  KIND_NAMES.flatMap((child) => {
    const { table, inherited = {}, parents } = KINDS[child];
    return Object.entries(inherited).flatMap(([column, { from, column: theirs }]) =>
      parents.some((p) => p.column === from && p.kind === kind)
        ? [
            `UPDATE ${table} AS c SET ${column} = (SELECT p.${theirs} FROM ${tableName(kind)} p WHERE p.id = c.${from})
              WHERE c.${from} IN (SELECT value FROM json_each(:ids))
                AND c.${column} IS NOT (SELECT p.${theirs} FROM ${tableName(kind)} p WHERE p.id = c.${from})`,
          ]
        : [],
    );
  });
