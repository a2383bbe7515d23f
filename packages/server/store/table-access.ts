import type { Sequelize, WhereOptions } from 'sequelize';
import type { Database, Transaction } from './database';
import { findRows, type TableColumns, type TableName, type RowSelection } from './models';

/** A new row: the database gives what is left out. */
export type NewRow<Columns> = Partial<Columns>;

/** Ordinary reading and writing of a table that holds no objects, through its model. */
export interface TableAccess<Columns extends object> {
  find(which?: RowSelection<Columns>): Promise<Columns[]>;
  first(which: RowSelection<Columns>): Promise<Columns | undefined>;
  count(where: WhereOptions<Columns>): Promise<number>;
  /** Adds a row and gives its number, where it has one. */
  insert(row: NewRow<Columns>, tx: Transaction): Promise<number>;
  /** Changes rows and gives how many. */
  update(values: Partial<Columns>, where: WhereOptions<Columns>, tx: Transaction): Promise<number>;
  /** Takes rows away and gives how many. */
  remove(where: WhereOptions<Columns>, tx: Transaction): Promise<number>;
}

/** The access to a table through a database. */
export function tableAccess<T extends TableName>(db: Database, table: T): TableAccess<TableColumns[T]> {
  type Columns = TableColumns[T];
  const model = (connection: Sequelize) => connection.model(table);
  const find = (which: RowSelection<Columns> = {}) =>
    db.reading((connection) => findRows<Columns>(connection, table, which));
  return {
    find,
    first: async (which) => (await find({ ...which, limit: 1 }))[0],
    count: (where) => db.reading((connection) => model(connection).count({ where })),
    async insert(row, tx) {
      const made = await model(tx.writer).create({ ...row });
      return Number(made.get('id') ?? 0);
    },
    async update(values, where, tx) {
      const [changed] = await model(tx.writer).update(values, { where });
      return changed;
    },
    remove: (where, tx) => model(tx.writer).destroy({ where }),
  };
}
