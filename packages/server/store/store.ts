import type { Versioned } from '@osier/core/changes';
import { DEFAULT_HOUSE, type HouseRules } from '@osier/core/house';
import { NO_LISTS, withCodes, type CodeLists } from '@osier/core/holdings';
import type { Transaction } from './database';
import type { Database, Params } from './database';
import { HOUSE_ID, KINDS, LISTS_ID, type Kind, type Objects } from './kinds';

/** Reading side of the store; everything that writes goes through commit. */
export interface Store extends Database {
  readonly aside: Store;
  /** Folder of the worker scripts; null for a store that is opened by itself. */
  readonly workers: string | null;
  /** The same store inside a transaction. What a plan reads there is still so when it is committed. */
  within(tx: Transaction): Store;
  read<K extends Kind>(kind: K, id: number, tx?: Transaction): Promise<Versioned<Objects[K]> | null>;
  readMany<K extends Kind>(
    kind: K,
    ids: readonly number[],
    tx?: Transaction,
  ): Promise<Versioned<Objects[K]>[]>;
  /** Objects of a kind by a condition on its table's columns. */
  select<K extends Kind>(
    kind: K,
    where: string,
    params?: Params,
    tx?: Transaction,
  ): Promise<Versioned<Objects[K]>[]>;
  /** Reserves `count` new numbers of a kind and gives the first. Numbers are never used twice. */
  nextIds(kind: string, count: number): Promise<number>;
  house(): Promise<Versioned<HouseRules>>;
  /** The house rules with what is on the code lists now, as the checks want them. */
  rulesNow(): Promise<HouseRules>;
  lists(): Promise<Versioned<CodeLists>>;
}

interface Row {
  id: number;
  version: number;
  value: string;
}

/** SQLite's limit on bound values stays far away. */
const IDS_AT_ONCE = 5000;

/** The store of an opened database. */
export function storeIn(db: Database, workers: string | null): Store {
  const aside: Store = storeOn(db.aside, workers, () => aside);
  return storeOn(db, workers, () => aside);
}

function storeWithin(db: Database, workers: string | null, tx: Transaction): Store {
  const inside: Store = storeOn(db.within(tx), workers, () => inside);
  return inside;
}

function storeOn(db: Database, workers: string | null, aside: () => Store): Store {
  const parse = <T>(row: Row): Versioned<T> => ({
    id: row.id,
    version: row.version,
    value: JSON.parse(row.value) as T,
  });
  const present = (kind: Kind) => (KINDS[kind].keepsRemoved ? 'gone = 0 AND ' : '');
  const select: Store['select'] = async (kind, where, params, tx) => {
    const rows = await db.rows<Row>(
      `SELECT id, version, value FROM ${KINDS[kind].table} WHERE ${present(kind)}${where}`,
      params,
      tx,
    );
    return rows.map((row) => parse(row));
  };
  const readMany: Store['readMany'] = async (kind, ids, tx) => {
    const found: Versioned<Objects[typeof kind]>[] = [];
    for (let at = 0; at < ids.length; at += IDS_AT_ONCE)
      found.push(...(await select(kind, 'id IN (:ids)', { ids: ids.slice(at, at + IDS_AT_ONCE) }, tx)));
    return found;
  };
  const setting = async <T>(id: number, otherwise: T): Promise<Versioned<T>> => {
    const row = await db.row<Row>('SELECT id, version, value FROM settings WHERE id = :id', { id });
    return row ? parse<T>(row) : { id, version: 0, value: otherwise };
  };
  const lists = async () => {
    const kept = await setting(LISTS_ID, NO_LISTS);
    return { ...kept, value: { ...NO_LISTS, ...kept.value } };
  };
  const house = async () => {
    const kept = await setting(HOUSE_ID, DEFAULT_HOUSE);
    return { ...kept, value: { ...DEFAULT_HOUSE, ...kept.value } };
  };
  return {
    ...db,
    select,
    readMany,
    read: async (kind, id, tx) => (await readMany(kind, [id], tx))[0] ?? null,
    workers,
    within: (tx) => storeWithin(db, workers, tx),
    nextIds: (kind, count) =>
      db.reserve(async (tx) => {
        await db.run('INSERT OR IGNORE INTO counters (kind, next) VALUES (:kind, 1)', { kind }, tx);
        const row = await db.row<{ next: number }>(
          'SELECT next FROM counters WHERE kind = :kind',
          { kind },
          tx,
        );
        await db.run('UPDATE counters SET next = next + :count WHERE kind = :kind', { kind, count }, tx);
        return row!.next;
      }),
    house,
    async rulesNow() {
      const [{ value }, { value: now }] = await Promise.all([house(), lists()]);
      return withCodes(value, now);
    },
    lists,
    get aside() {
      return aside();
    },
  };
}
