import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { QueryTypes, Sequelize, Transaction } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { initial } from './migrations/001-initial';

export type Params = Record<string, unknown>;

/** The SQLite file through Sequelize, with one writer at a time and readers beside it. */
export interface Database {
  readonly sequelize: Sequelize;
  /** Rows of a query; `:name` in it stands for a value of `params`. */
  rows<T>(sql: string, params?: Params, tx?: Transaction): Promise<T[]>;
  row<T>(sql: string, params?: Params, tx?: Transaction): Promise<T | undefined>;
  run(sql: string, params?: Params, tx?: Transaction): Promise<void>;
  /** Runs work alone in one transaction; all of it is stored, or nothing. */
  write<T>(work: (tx: Transaction) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

/** Opens (and if need be makes) the database in a folder and brings it to the newest shape. */
export async function openDatabase(folder: string): Promise<Database> {
  mkdirSync(folder, { recursive: true });
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage: join(folder, 'osier.sqlite'),
    logging: false,
    transactionType: Transaction.TYPES.IMMEDIATE,
    retry: { max: 1 },
  });
  await sequelize.query('PRAGMA journal_mode = WAL');
  await sequelize.query('PRAGMA synchronous = NORMAL');
  await sequelize.query('PRAGMA cache_size = -65536');
  await migrate(sequelize);
  let last: Promise<unknown> = Promise.resolve();
  return {
    sequelize,
    rows: <T>(sql: string, replacements: Params = {}, transaction?: Transaction) =>
      sequelize.query(sql, { replacements, transaction, type: QueryTypes.SELECT }) as Promise<T[]>,
    row: async <T>(sql: string, replacements: Params = {}, transaction?: Transaction) =>
      (await sequelize.query(sql, { replacements, transaction, type: QueryTypes.SELECT }))[0] as T | undefined,
    run: async (sql, replacements = {}, transaction) => {
      await sequelize.query(sql, { replacements, transaction, type: QueryTypes.RAW });
    },
    write(work) {
      const mine = last.then(() => sequelize.transaction(work));
      last = mine.catch(() => undefined);
      return mine;
    },
    async close() {
      await last;
      await sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)').catch(() => undefined);
      await sequelize.close();
    },
  };
}

async function migrate(sequelize: Sequelize): Promise<void> {
  const migrations = [{ name: '001-initial', statements: initial }];
  const umzug = new Umzug({
    migrations: migrations.map(({ name, statements }) => ({
      name,
      up: () =>
        sequelize.transaction(async (transaction) => {
          for (const sql of statements) await sequelize.query(sql, { transaction });
        }),
    })),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
  await umzug.up();
}
