import type { Versioned } from '@osier/core/changes';
import { checkerFor, ruleNow, type Checker } from '@osier/core/checks';
import { DEFAULT_HOUSE, houseNow, type HouseRules } from '@osier/core/house';
import { NO_LISTS, withCodes, type CodeLists } from '@osier/core/holdings';
import type { Transaction } from './database';
import type { Database, Params } from './database';
import type { Id } from '@osier/core/changes';
import { KINDS, type Kind, type KindColumns, type StoredObject } from '@osier/core/kinds';
import { keptJson } from './kept-json';
import { Op } from 'sequelize';
import { findRows, type TableColumns, type TableName, type RowSelection } from './models';
import { changeFeed, type ChangeFeed } from './feed';
import { tableAccess, type TableAccess } from './table-access';
import { tableOf } from './tables';

/** Reading side of the store; everything that writes goes through commit. */
export interface Store extends Database {
  readonly aside: Store;
  /** Tells what was changed, once it is stored. */
  readonly feed: ChangeFeed;
  /** Folder of the worker scripts; null for a store that is opened by itself. */
  readonly workers: string | null;
  /** The same store inside a transaction. What a plan reads there is still so when it is committed. */
  within(tx: Transaction): Store;
  read<K extends Kind>(kind: K, id: Id<K>, tx?: Transaction): Promise<StoredObject<K> | null>;
  readMany<K extends Kind>(kind: K, ids: readonly Id<K>[], tx?: Transaction): Promise<StoredObject<K>[]>;
  /** Objects of a kind by its columns, in an order, as many as are wanted. */
  find<K extends Kind>(kind: K, which?: RowSelection<KindColumns<K>>): Promise<StoredObject<K>[]>;
  /** The model of a table that holds no objects. */
  table<T extends TableName>(name: T): TableAccess<TableColumns[T]>;
  /** Objects of a kind by a condition in SQL on its table's columns; for a subject's queries. */
  select<K extends Kind>(
    kind: K,
    where: string,
    params?: Params,
    tx?: Transaction,
  ): Promise<StoredObject<K>[]>;
  /** Reserves `count` new numbers of a kind and gives the first. Numbers are never used twice. */
  nextIds<K extends Kind>(kind: K, count: number): Promise<Id<K>>;
  house(): Promise<StoredObject<'house'>>;
  /** The house rules with what is on the code lists now, as the checks want them. */
  rulesNow(): Promise<HouseRules>;
  /** What checks records by these rules; the same as long as they are, with what it has learnt. */
  checkerNow(): Promise<Checker>;
  lists(): Promise<StoredObject<'lists'>>;
}

interface Row {
  id: number;
  version: number;
  value: string;
}

/** Ids of the two settings, which share a table. */
export const SETTING_ID = { house: KINDS.house.single ?? 0, lists: KINDS.lists.single ?? 0 } as const;

/** SQLite's limit on bound values stays far away. */
const IDS_AT_ONCE = 5000;

/** The store of an opened database. */
export function storeIn(db: Database, workers: string | null): Store {
  const feed = changeFeed();
  const shared: Shared = { workers, feed, checkerFor: oneChecker() };
  const aside: Store = storeOn(db.aside, shared, () => aside);
  return storeOn(db, shared, () => aside);
}

function storeWithin(db: Database, shared: Shared, tx: Transaction): Store {
  const inside: Store = storeOn(db.within(tx), shared, () => inside);
  return inside;
}

/** What all views of a store share. */
interface Shared extends Pick<Store, 'workers' | 'feed'> {
  readonly checkerFor: (rules: HouseRules) => Checker;
}

/** Gives one checker as long as the rules are the same. */
function oneChecker(): (rules: HouseRules) => Checker {
  let last = { rules: '', checker: checkerFor(DEFAULT_HOUSE) };
  return (house) => {
    const rules = JSON.stringify(house);
    if (last.rules !== rules) last = { rules, checker: checkerFor(house) };
    return last.checker;
  };
}

function storeOn(db: Database, shared: Shared, aside: () => Store): Store {
  const parse = <T, K extends string>(row: Row): Versioned<T, K> => ({
    id: row.id,
    version: row.version,
    value: keptJson<T>(row.value),
  });
  const select: Store['select'] = async (kind, where, params, tx) => {
    const { name, present } = tableOf(kind);
    const rows = await db.rows<Row>(
      `SELECT id, version, value FROM ${name} WHERE ${present} AND ${where}`,
      params,
      tx,
    );
    return rows.map((row) => parse(row));
  };
  const readMany: Store['readMany'] = async (kind, ids, tx) => {
    const found: StoredObject<typeof kind>[] = [];
    for (let at = 0; at < ids.length; at += IDS_AT_ONCE)
      found.push(...(await select(kind, 'id IN (:ids)', { ids: ids.slice(at, at + IDS_AT_ONCE) }, tx)));
    return found;
  };
  const setting = async <T, K extends string>(id: Id<K>, otherwise: T): Promise<Versioned<T, K>> => {
    const row = await db.row<Row>('SELECT id, version, value FROM settings WHERE id = :id', { id });
    return row ? parse<T, K>(row) : { id, version: 0, value: otherwise };
  };
  const lists = async (): Promise<StoredObject<'lists'>> => {
    const kept = await setting<CodeLists, 'lists'>(SETTING_ID.lists, NO_LISTS);
    return { ...kept, value: { ...NO_LISTS, ...kept.value } };
  };
  const house = async (): Promise<StoredObject<'house'>> => {
    const kept = await setting<HouseRules, 'house'>(SETTING_ID.house, DEFAULT_HOUSE);
    const value = houseNow(kept.value);
    // Undoing an old entry may bring back a rule by the name that it had then.
    return { ...kept, value: { ...value, checksOff: value.checksOff.map(ruleNow) } };
  };
  const { checkerFor: checkerOf, ...open } = shared;
  const rulesNow = async () => {
    const [{ value }, { value: now }] = await Promise.all([house(), lists()]);
    return withCodes(value, now);
  };
  return {
    ...db,
    select,
    find: async (kind, which = {}) => {
      const { name, keepsRemoved } = tableOf(kind);
      const where = keepsRemoved ? { [Op.and]: [{ gone: 0 }, which.where ?? {}] } : which.where;
      const rows = await db.reading((connection) =>
        findRows<Row, KindColumns<typeof kind>>(connection, name, { ...which, where }, [
          'id',
          'version',
          'value',
        ]),
      );
      return rows.map((row) => parse(row));
    },
    table: (name) => tableAccess(db, name),
    readMany,
    read: async (kind, id, tx) => (await readMany(kind, [id], tx))[0] ?? null,
    ...open,
    within: (tx) => storeWithin(db, shared, tx),
    nextIds: (kind, count) =>
      db.reserve(async (tx) => {
        const counted = await db.row<{ next: number }>(
          'UPDATE counters SET next = next + :count WHERE kind = :kind RETURNING next',
          { kind, count },
          tx,
        );
        if (counted) return counted.next - count;
        await db.run(
          'INSERT INTO counters (kind, next) VALUES (:kind, :next)',
          { kind, next: count + 1 },
          tx,
        );
        return 1;
      }),
    house,
    rulesNow,
    checkerNow: async () => checkerOf(await rulesNow()),
    lists,
    get aside() {
      return aside();
    },
  };
}
