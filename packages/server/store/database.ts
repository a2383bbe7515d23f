import { AsyncLocalStorage } from 'node:async_hooks';
import { chmodSync, closeSync, mkdirSync, openSync } from 'node:fs';
import { join } from 'node:path';
import { QueryTypes, Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { initial } from './migrations/001-initial';
import { recipes } from './migrations/002-recipes';
import { suppliers } from './migrations/003-suppliers';
import { incomingFields, partDaybook } from './migrations/004-incoming-fields';
import { searchIndexes } from './migrations/005-search-indexes';
import { fundsAndSuppliers } from './migrations/006-funds-and-suppliers';
import { piles } from './migrations/007-piles';
import { searchOrder } from './migrations/008-search-order';
import { invariants } from './migrations/009-invariants';
import { copyParts } from './migrations/010-copy-parts';
import { isOwnWork } from './feed';
import { defineModels } from './models';
import { projections } from './migrations/011-projections';
import { undoneEntries } from './migrations/012-undone-entries';
import { actsAsData } from './migrations/013-acts-as-data';
import { recordRows } from './migrations/014-record-rows';
import { recordKeys } from './migrations/015-record-keys';
import { copyCounts } from './migrations/017-copy-counts';
import { comingKeys } from './migrations/017-coming-keys';
import { headingKinds } from './migrations/018-heading-kinds';
import { listOrders } from './migrations/018-list-orders';
import { ruleNames } from './migrations/018-rule-names';
import { recordFindings } from './migrations/016-record-findings';
import { recordDesk } from './migrations/019-record-desk';
import { links } from './migrations/020-links';
import { alikeMembers, copyLists, establishedHeadings } from './migrations/021-copy-lists';
import { fillRegister, register } from './migrations/022-register';
import { stocktakes } from './migrations/022-stocktakes';
import { neighbours } from './migrations/023-neighbours';
import { briefRecords } from './migrations/024-brief-records';
import { find } from './migrations/025-find';
import { headingWords } from './migrations/026-heading-words';
import { loanFigureColumns } from './migrations/027-loan-figures';
import { loanNotices } from './migrations/028-loan-notices';
import { localFields } from './migrations/029-local-fields';
import { filedHeadings } from './migrations/030-filed-headings';
import { nameBuckets } from './migrations/031-name-buckets';
import { currencies } from './migrations/032-currencies';
import { nameBucketsOnce } from './migrations/033-name-buckets-once';
import { lockFolder } from './folder-lock';
import { giveWay } from './give-way';

export type Params = Record<string, unknown>;

/** The right to write: held by one piece of work at a time, for one transaction. */
export interface Transaction {
  readonly writer: Sequelize;
  /** Calls back when it is stored; never when it fails. */
  whenStored(call: () => void): void;
}

/** The SQLite file through Sequelize: one connection that writes, and beside it those that read (write-ahead log). */
export interface Database {
  /** Rows of a query; `:name` in it stands for a value of `params`. Within a transaction it sees what that has written. */
  rows<T>(sql: string, params?: Params, tx?: Transaction): Promise<T[]>;
  row<T>(sql: string, params?: Params, tx?: Transaction): Promise<T | undefined>;
  /** Reads on one of the connections through its models. */
  reading<T>(read: (connection: Sequelize) => Promise<T>): Promise<T>;
  run(sql: string, params: Params, tx: Transaction): Promise<void>;
  /** Runs a statement with numbered values ($1 …), for many rows at once. */
  bind(sql: string, values: readonly unknown[], tx: Transaction): Promise<void>;
  /** Runs work alone in one transaction; all of it is stored, or nothing. */
  write<T>(work: (tx: Transaction) => Promise<T>): Promise<T>;
  /** Runs work alone in one transaction that only takes numbers: nothing that anybody reads changes. */
  reserve<T>(work: (tx: Transaction) => Promise<T>): Promise<T>;
  /** Grows with every transaction that is stored: an answer from before is good as long as it has not. */
  writes(): number;
  /** The same database inside a transaction: every query sees what it has written, and nobody else writes meanwhile. */
  within(tx: Transaction): Database;
  /** The file it is kept in. */
  readonly file: string;
  /** The same, reading through a connection of its own: long work does not make others wait for its queries. */
  readonly aside: Database;
  close(): Promise<void>;
}

async function connect(storage: string): Promise<Sequelize> {
  const sequelize = new Sequelize({ dialect: 'sqlite', storage, logging: false, retry: { max: 1 } });
  await sequelize.query('PRAGMA journal_mode = WAL');
  // With a write-ahead log a commit is safe from a killed process; a power cut may lose the last commits, never half of one.
  await sequelize.query('PRAGMA synchronous = NORMAL');
  await sequelize.query('PRAGMA cache_size = -65536');
  await sequelize.query('PRAGMA busy_timeout = 5000');
  defineModels(sequelize);
  return sequelize;
}

/** Makes the file for its owner alone; SQLite gives the files beside it the same rights. */
function makePrivate(storage: string): void {
  closeSync(openSync(storage, 'a', 0o600));
  chmodSync(storage, 0o600);
}

/** The transaction that the running work is in, so that waiting for another one from within it is told, not waited for. */
const inTransaction = new AsyncLocalStorage<Transaction>();

/**
 * Opens (and if need be makes) the database in a folder and brings it to the newest shape. Throws a sentence when another
 * process has the folder.
 */
export async function openDatabase(folder: string): Promise<Database> {
  mkdirSync(folder, { recursive: true });
  const unlock = await lockFolder(folder);
  const storage = join(folder, 'osier.sqlite');
  makePrivate(storage);
  const writer = await connect(storage);
  // 64 MB: a page that is written again and again, as those of an index are in long work, comes into the file once in a while only.
  await writer.query('PRAGMA wal_autocheckpoint = 16000');
  // Tables are made anew in a migration; what hangs on what is looked at when all of them are there.
  await writer.query('PRAGMA foreign_keys = OFF');
  await migrate(writer);
  await writer.query('PRAGMA foreign_keys = ON');
  const opened = async (): Promise<Reader> => ({ connection: await connect(storage), busy: 0 });
  const [first, second, patient] = [await opened(), await opened(), await opened()];
  let writes = 0;
  let last: Promise<unknown> = Promise.resolve();
  /** Transactions that wait for the one that runs; long work that holds them up gives way to nobody. */
  let waiting = 0;
  async function transact<T>(work: (tx: Transaction) => Promise<T>, isSeen: boolean): Promise<T> {
    await writer.query('BEGIN IMMEDIATE');
    try {
      const stored: (() => void)[] = [];
      const tx: Transaction = { writer, whenStored: (call) => void stored.push(call) };
      const result = await inTransaction.run(tx, () => work(tx));
      await writer.query('COMMIT');
      if (isSeen) writes++;
      for (const call of stored) call();
      return result;
    } catch (error) {
      // A full disk or a failed commit may have ended the transaction already; what went wrong first is what is told.
      await writer.query('ROLLBACK').catch(() => undefined);
      throw error;
    }
  }
  function queue<T>(work: (tx: Transaction) => Promise<T>, isSeen: boolean): Promise<T> {
    if (inTransaction.getStore()) throw new Error('A transaction was begun inside another one.');
    waiting++;
    const mine = last.then(() => {
      waiting--;
      return transact(work, isSeen);
    });
    last = mine.catch(() => undefined);
    return mine;
  }
  /** Queries of one request go side by side: each to the connection that has the least to do. Long work leaves one of those to requests. */
  const readBeside: Reading = async (read) => {
    const [one, other] = isOwnWork() ? [patient, second] : [first, second];
    const reader = other.busy < one.busy ? other : one;
    reader.busy++;
    try {
      return await read(reader.connection);
    } finally {
      reader.busy--;
    }
  };
  const within = (tx: Transaction): Database => {
    const inside: Database = {
      ...through((read) => read(tx.writer)),
      write: (work) => work(tx),
      reserve: (work) => work(tx),
      get aside() {
        return inside;
      },
    };
    return inside;
  };
  const through = (reading: Reading): Omit<Database, 'aside'> => {
    const rows = <T>(sql: string, replacements: Params = {}, tx?: Transaction) =>
      tx
        ? select<T>(tx.writer, sql, replacements)
        : reading((connection) => select<T>(connection, sql, replacements));
    return {
      file: storage,
      writes: () => writes,
      rows,
      reading,
      row: async <T>(sql: string, params?: Params, tx?: Transaction) => (await rows<T>(sql, params, tx))[0],
      run: async (sql, replacements, tx) => {
        if (waiting === 0) await giveWay();
        await tx.writer.query(sql, { replacements, type: QueryTypes.RAW });
      },
      bind: async (sql, bind, tx) => {
        if (waiting === 0) await giveWay();
        await tx.writer.query(sql, { bind: [...bind], type: QueryTypes.RAW });
      },
      write: (work) => queue(work, true),
      reserve: (work) => queue(work, false),
      within,
      async close() {
        await last;
        await writer.query('PRAGMA wal_checkpoint(TRUNCATE)').catch(() => undefined);
        for (const c of [first, second, patient]) await c.connection.close();
        await writer.close();
        await unlock();
      },
    };
  };
  const aside: Database = {
    ...through((read) => read(patient.connection)),
    get aside() {
      return aside;
    },
  };
  return { ...through(readBeside), aside };
}

type Reading = Database['reading'];
/** A connection that reads, and how many queries it is at. */
interface Reader {
  readonly connection: Sequelize;
  busy: number;
}
async function select<T>(connection: Sequelize, sql: string, replacements: Params): Promise<T[]> {
  await giveWay();
  // What columns a query gives, the query says.
  return (await connection.query(sql, { replacements, type: QueryTypes.SELECT })) as T[];
}

async function migrate(sequelize: Sequelize): Promise<void> {
  const migrations: {
    name: string;
    statements: readonly string[];
    then?: (s: Sequelize) => Promise<void>;
  }[] = [
    { name: '001-initial', statements: initial },
    { name: '002-recipes', statements: recipes },
    { name: '003-suppliers', statements: suppliers },
    { name: '004-incoming-fields', statements: incomingFields, then: partDaybook },
    { name: '005-search-indexes', statements: searchIndexes },
    { name: '006-funds-and-suppliers', statements: fundsAndSuppliers },
    { name: '007-piles', statements: piles },
    { name: '008-search-order', statements: searchOrder },
    { name: '009-invariants', statements: invariants },
    { name: '010-copy-parts', statements: copyParts },
    { name: '011-projections', statements: projections },
    { name: '012-undone-entries', statements: undoneEntries },
    { name: '013-acts-as-data', statements: actsAsData },
    { name: '014-record-rows', statements: recordRows },
    { name: '015-record-keys', statements: recordKeys },
    { name: '016-record-findings', statements: recordFindings },
    { name: '017-coming-keys', statements: [...comingKeys, ...copyCounts] },
    { name: '018-list-orders', statements: [...listOrders, ...ruleNames, ...headingKinds] },
    { name: '019-record-desk', statements: recordDesk },
    { name: '020-links', statements: links },
    { name: '021-copy-lists', statements: [...copyLists, ...alikeMembers, ...establishedHeadings] },
    { name: '022-stocktakes', statements: [...stocktakes, ...register], then: fillRegister },
    { name: '023-neighbours', statements: neighbours },
    { name: '024-brief-records', statements: briefRecords },
    { name: '025-find', statements: find },
    { name: '026-heading-words', statements: headingWords },
    { name: '027-loan-figures', statements: loanFigureColumns },
    { name: '028-loan-notices', statements: loanNotices },
    { name: '029-local-fields', statements: localFields },
    { name: '030-filed-headings', statements: filedHeadings },
    { name: '031-name-buckets', statements: nameBuckets },
    { name: '032-currencies', statements: currencies },
    { name: '033-name-buckets-once', statements: nameBucketsOnce },
  ];
  const umzug = new Umzug({
    migrations: migrations.map(({ name, statements, then }) => ({
      name,
      async up() {
        await sequelize.query('BEGIN IMMEDIATE');
        try {
          for (const sql of statements) await sequelize.query(sql);
          await then?.(sequelize);
          await sequelize.query('COMMIT');
        } catch (error) {
          await sequelize.query('ROLLBACK').catch(() => undefined);
          throw error;
        }
      },
    })),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
  await umzug.up();
}
