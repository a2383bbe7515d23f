import { update } from '@osier/core/changes';
import { KINDS } from '@osier/core/kinds';
import { changesByKind } from '../store/changes-by-kind';
import type { Transaction } from '../store/database';
import { COMING, indexRecords, pointsOf, SEARCHED, wordsTable } from '../store/index-records';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import { tableOf } from '../store/tables';
import { headingUse } from './heading-use';
import { recordRows } from './record-rows';

/** Records of one transaction. */
const AT_ONCE = 200;

/** What of records was computed by an older rule than today's: the columns of lists, or the index of words and keys. */
export interface OldKeys {
  readonly columns: boolean;
  readonly index: boolean;
}

const { words, keys, columns } = pointsOf('record');
const nameOf = (point: { readonly name: string }): string => `record ${point.name}`;
const versionsOf = (points: readonly { readonly name: string; readonly version: number }[]) =>
  points.map((p): [string, number] => [nameOf(p), p.version]);
/** The rules of today, by what they are kept under. */
const INDEX_RULES = versionsOf([...words, ...keys]);
const COLUMN_RULES = versionsOf([...columns, { name: 'columns', version: KINDS.record.computed ?? 1 }]);

/** What of records was computed by an older rule. */
export async function oldRecordKeys(store: Store): Promise<OldKeys> {
  const rows = await store.rows<{ name: string; version: number }>(
    "SELECT name, version FROM key_versions WHERE name LIKE 'record %'",
  );
  const kept = new Map(rows.map((r) => [r.name, r.version]));
  const isOld = (rules: readonly [string, number][]) =>
    rules.some(([name, version]) => kept.get(name) !== version);
  return { columns: isOld(COLUMN_RULES), index: isOld(INDEX_RULES) };
}

/** How large the index of words is, in bytes. */
export const indexSize = async (store: Store): Promise<number> =>
  (await store.row<{ n: number }>('SELECT ifnull(SUM(length(block)), 0) AS n FROM record_words_data'))?.n ??
  0;

/** How far the work has come: behind which record, how many are done, and by which rules. */
export interface KeysPlace {
  readonly place: number;
  readonly done: number;
  readonly rules: string;
}
/** The rules of today as a text that changes with them: what was begun by others is begun again. */
const RULES = JSON.stringify([INDEX_RULES, COLUMN_RULES]);
/** Where the work begins. */
export const KEYS_BEGIN: KeysPlace = { place: 0, done: 0, rules: RULES };
/** Keeps that in the transaction of each piece. */
export type KeepPlace = (at: KeysPlace, tx: Transaction) => Promise<void>;

/**
 * Computes anew what is old, in the order of the records' numbers, in short transactions. Columns are written where they stand. Words and
 * keys fill a second index; people work with the old one until the second is whole and takes its place in one
 * transaction, with what was written to records meanwhile. `stop` ends it between two pieces. Gives how many records were done.
 */
export async function recordKeysAnew(
  store: Store,
  from: KeysPlace,
  keep: KeepPlace = () => Promise.resolve(),
  stop: () => boolean = () => false,
): Promise<number> {
  const old = await oldRecordKeys(store);
  let at = from.rules === RULES ? from : KEYS_BEGIN;
  if (at.place === 0 && old.index) await begin(store);
  while (!stop()) {
    const before = at;
    const next = await store.write(async (tx) => {
      const ids = await someAnew(store.within(tx), old, before.place, tx);
      const last = ids.at(-1);
      if (last === undefined) return null;
      const so = { place: last, done: before.done + ids.length, rules: RULES };
      await keep(so, tx);
      return so;
    });
    if (next) {
      at = next;
      continue;
    }
    await finish(store, old);
    break;
  }
  return at.done;
}

/** Named in `key_versions` while a second index is filled: then the database notes which records are written to. */
const FILLING = 'record coming';

const begin = (store: Store): Promise<void> =>
  store.write(async (tx) => {
    await emptyComing(store, tx);
    await store.run('DELETE FROM records_touched', {}, tx);
    await store.run(
      'INSERT OR REPLACE INTO key_versions (name, version) VALUES (:name, 1)',
      { name: FILLING },
      tx,
    );
  });

/** Empties the second index; that of words is laid down anew, so that one of an older cut is not filled again. */
async function emptyComing(store: Store, tx: Transaction): Promise<void> {
  await store.run(`DELETE FROM ${COMING.keys}`, {}, tx);
  await store.run(`DROP TABLE ${COMING.words}`, {}, tx);
  await store.run(wordsTable(COMING.words), {}, tx);
}

async function someAnew(store: Store, old: OldKeys, after: number, tx: Transaction): Promise<number[]> {
  const held = await store.select('record', `id > :after ORDER BY id LIMIT ${AT_ONCE}`, { after });
  if (held.length === 0) return [];
  const ids = held.map((h) => h.id);
  if (old.columns) {
    const checker = await store.checkerNow();
    const { columns: names, values } = tableOf('record');
    const set = names.map((c, i) => `${c} = json_extract(v.value, '$[${i + 1}]')`).join(', ');
    await store.bind(
      `UPDATE records SET ${set} FROM json_each($1) v WHERE records.id = json_extract(v.value, '$[0]')`,
      [JSON.stringify(held.map((h) => [h.id, ...values(h.value, checker)]))],
      tx,
    );
    await recordRows.apply(store, changesByKind(held.map((h) => update('record', h, h.value))), tx);
  }
  if (old.index)
    await indexRecords(store, new Map(held.map((h) => [h.id, h.value])), new Set(ids), tx, COMING);
  return ids;
}

/** Puts some of the records that were written to into the second index as they are now; gives how many. */
async function someTouched(store: Store, tx: Transaction): Promise<number> {
  const rows = await store.rows<{ id: number }>('SELECT id FROM records_touched LIMIT :most', {
    most: AT_ONCE,
  });
  const ids = rows.map((r) => r.id);
  if (ids.length === 0) return 0;
  const held = new Map((await store.readMany('record', ids)).map((h) => [h.id, h.value]));
  await indexRecords(store, new Map(ids.map((id) => [id, held.get(id) ?? null])), new Set(), tx, COMING);
  await store.run('DELETE FROM records_touched WHERE id IN (:ids)', { ids }, tx);
  return ids.length;
}

/** Brings the second index up to now, gives it the place of the first, and says by which rules all was computed. */
async function finish(store: Store, old: OldKeys): Promise<void> {
  while (old.index && (await store.write((tx) => someTouched(store.within(tx), tx))) === AT_ONCE);
  await store.write(async (tx) => {
    const inside = store.within(tx);
    if (old.index) {
      while ((await someTouched(inside, tx)) > 0);
      await exchange(inside, tx);
      await headingUse.recount(inside, tx);
      await inside.run('DELETE FROM key_versions WHERE name = :name', { name: FILLING }, tx);
    }
    const rules = [...INDEX_RULES, ...COLUMN_RULES];
    const set = 'ON CONFLICT (name) DO UPDATE SET version = excluded.version';
    await insertRows(inside, 'INSERT', 'key_versions', ['name', 'version'], rules, tx, set);
  });
  if (old.index) await store.write((tx) => emptyComing(store, tx));
}

/** Gives each of the two indexes the name of the other. */
async function exchange(store: Store, tx: Transaction): Promise<void> {
  for (const part of ['keys', 'words'] as const) {
    const [now, next] = [SEARCHED[part], COMING[part]];
    await store.run(`ALTER TABLE ${now} RENAME TO ${now}_former`, {}, tx);
    await store.run(`ALTER TABLE ${next} RENAME TO ${now}`, {}, tx);
    await store.run(`ALTER TABLE ${now}_former RENAME TO ${next}`, {}, tx);
  }
}
