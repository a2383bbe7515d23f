import type { FindOptions, Sequelize, WhereOptions } from 'sequelize';
import { defineObjects } from './object-models';
import type { TableColumns } from './table-columns';
import { defineTable, tableAttributes } from './table-models';

export type { TableColumns } from './table-columns';
export type {
  BookListColumns,
  BookListRowColumns,
  BriefRecordColumns,
  CounterColumns,
  DaybookColumns,
  JobColumns,
  PersonColumns,
  ReadingColumns,
  ScanColumns,
  SignInColumns,
} from './table-columns';

/** Name of a table that holds no objects. */
export type TableName = keyof TableColumns;

/** Which rows, in which order, how many. */
export interface RowSelection<Columns> {
  readonly where?: WhereOptions<Columns>;
  readonly order?: readonly (readonly [keyof Columns & string, 'ASC' | 'DESC'])[];
  readonly limit?: number;
}

/** Declares all models on a connection. */
export function defineModels(sequelize: Sequelize): void {
  defineObjects(sequelize);
  for (const [name, attributes] of tableAttributes) defineTable(sequelize, name, attributes);
}

/** Rows of a model as plain values; only some of their columns, if so wanted. */
export async function findRows<Columns, Looked = Columns>(
  sequelize: Sequelize,
  table: string,
  { where, order, limit }: RowSelection<Looked>,
  attributes?: readonly (keyof Columns & string)[],
): Promise<Columns[]> {
  const options: FindOptions = {
    ...(where && { where }),
    ...(order && { order: order.map(([column, way]): [string, string] => [column, way]) }),
    ...(limit !== undefined && { limit }),
    ...(attributes && { attributes: [...attributes] }),
    raw: true,
  };
  // Raw rows are plain values with just the columns of the model.
  return (await sequelize.model(table).findAll(options)) as unknown as Columns[];
}
