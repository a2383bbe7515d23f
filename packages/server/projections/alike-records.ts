import type { Compared, RecordPair } from '@osier/core/duplicates';
import type { Description } from '@osier/core/matching';
import { candidatesFor } from '../deliveries/find-candidates';
import { keysOf } from '../deliveries/keys';
import { descriptionsIn } from '../deliveries/queries';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import { keptJson } from '../store/kept-json';
import type { Store } from '../store/store';
import type { Projection } from './projection';

const AMONG = 'IN (SELECT value FROM json_each(:ids))';
const among = (ids: Iterable<number>) => ({ ids: JSON.stringify([...ids]) });

/**
 * Pairs of records that may be one. An act marks the records that it writes; beside the requests each is matched with those that share
 * a key with it. What was merged, deleted or noted as two things leaves the pairs at once.
 */
export const alikeRecords: Projection = {
  name: 'alike-records',
  version: 1,
  of: ['record', 'apart'],
  async apply(store, changes, tx) {
    const records = changes.of('record');
    await mark(
      store,
      records.flatMap((c) => (c.after === null ? [] : [c.id])),
      tx,
    );
    await forget(
      store,
      records.flatMap((c) => (c.before === null ? [] : [c.id])),
      tx,
    );
    const apart = changes.of('apart').flatMap(({ before, after }) => [before, after]);
    for (const pair of apart) {
      if (!pair) continue;
      await store.run('DELETE FROM record_pairs WHERE a = :a AND b = :b', { a: pair.a, b: pair.b }, tx);
      await mark(store, [pair.a], tx);
    }
  },
  rebuild: (store) =>
    store.write(async (tx) => {
      await store.run('DELETE FROM record_pairs', {}, tx);
      await store.run('INSERT OR IGNORE INTO records_to_compare (record) SELECT id FROM records', {}, tx);
    }),
};

const mark = (store: Store, records: readonly number[], tx: Transaction): Promise<void> =>
  insertRows(
    store,
    'INSERT OR IGNORE',
    'records_to_compare',
    ['record'],
    records.map((id) => [id]),
    tx,
  );

async function forget(store: Store, records: readonly number[], tx: Transaction): Promise<void> {
  if (records.length === 0) return;
  await store.run(`DELETE FROM record_pairs WHERE a ${AMONG}`, among(records), tx);
  await store.run(`DELETE FROM record_pairs WHERE b ${AMONG}`, among(records), tx);
}

/** How records are compared: in a worker of the server, or on the spot for a store that is opened by itself. */
export type PairRecords = (compared: readonly Compared[]) => Promise<RecordPair[]>;

const AT_ONCE = 200;

/** Compares some of the records that were written; gives how many there were, nought when all are compared. */
export async function pairTouched(store: Store, pair: PairRecords): Promise<number> {
  const waiting = await store.rows<{ record: number }>(
    `SELECT record FROM records_to_compare ORDER BY record LIMIT ${AT_ONCE}`,
  );
  if (waiting.length === 0) return 0;
  const ids = waiting.map((w) => w.record);
  const versions = new Map((await versionsOf(store, ids)).map((v) => [v.id, v.version]));
  const own = (await descriptionsIn(store, ids)).map(({ id, matching }) => ({
    record: id,
    description: keptJson<Description>(matching),
  }));
  const keys = own.map(({ description }) => keysOf(description));
  const sharing = await candidatesFor(store, keys.flat());
  const compared = own.map((one, i) => ({
    ...one,
    among: keys[i]!.flatMap(([kind, key]) => sharing.get(`${kind} ${key}`) ?? []),
  }));
  const pairs = await pair(compared);
  await store.write(async (tx) => {
    const inside = store.within(tx);
    // What was written meanwhile is compared once more.
    const now = new Map((await versionsOf(inside, ids)).map((v) => [v.id, v.version]));
    const done = ids.filter((id) => now.get(id) === versions.get(id));
    await inside.run(`DELETE FROM records_to_compare WHERE record ${AMONG}`, among(done), tx);
    await forget(inside, done, tx);
    const there = new Set(done);
    const rows = pairs
      .filter((p) => there.has(p.a) || there.has(p.b))
      .map((p) => [p.a, p.b, p.strength, p.sure ? 1 : 0, p.why]);
    await insertRows(
      inside,
      'INSERT OR REPLACE',
      'record_pairs',
      ['a', 'b', 'strength', 'sure', 'why'],
      rows,
      tx,
    );
    await inside.run(
      `DELETE FROM record_pairs WHERE (a ${AMONG} OR b ${AMONG}) AND (
           EXISTS (SELECT 1 FROM apart_records t WHERE t.a = record_pairs.a AND t.b = record_pairs.b)
           OR NOT EXISTS (SELECT 1 FROM records r WHERE r.id = record_pairs.a)
           OR NOT EXISTS (SELECT 1 FROM records r WHERE r.id = record_pairs.b))`,
      among(done),
      tx,
    );
  });
  return ids.length;
}

const versionsOf = (store: Store, ids: readonly number[]): Promise<{ id: number; version: number }[]> =>
  store.rows<{ id: number; version: number }>(
    `SELECT id, version FROM records WHERE id ${AMONG}`,
    among(ids),
  );

/** A pair as it is kept. */
export interface KeptPair {
  readonly a: number;
  readonly b: number;
  readonly strength: number;
  readonly sure: number;
  readonly why: string;
}

/** Where a page of groups begins: behind the group with this sureness, strength and first record. */
export interface AfterPair {
  readonly sure: number;
  readonly strength: number;
  readonly a: number;
}

/** First records of groups of look-alikes, the surest first; a record stands first when no lower one is paired with it. */
export const pageOfPairs = (
  store: Store,
  after: AfterPair | null,
  atMost: number,
): Promise<{ a: number; sure: number; strength: number }[]> =>
  store.rows<{ a: number; sure: number; strength: number }>(
    `SELECT p.a, MAX(p.sure) AS sure, MAX(p.strength) AS strength FROM record_pairs p
      WHERE NOT EXISTS (SELECT 1 FROM record_pairs q WHERE q.b = p.a) GROUP BY p.a
      ${after ? 'HAVING (MAX(p.sure), MAX(p.strength), -p.a) < (:sure, :strength, -:a)' : ''}
      ORDER BY 2 DESC, 3 DESC, 1 LIMIT :atMost`,
    { ...after, atMost },
  );

/** The pairs that some records are in. */
export const pairsWith = (store: Store, ids: readonly number[]): Promise<KeptPair[]> =>
  store.rows<KeptPair>(
    `SELECT * FROM record_pairs WHERE a ${AMONG} UNION SELECT * FROM record_pairs WHERE b ${AMONG} ORDER BY sure DESC, strength DESC, a, b`,
    among(ids),
  );

/** How many groups of look-alikes there are, and how many records are still to be compared. */
export const countPairs = async (store: Store): Promise<{ groups: number; waiting: number }> =>
  (await store.row<{ groups: number; waiting: number }>(
    `SELECT (SELECT COUNT(DISTINCT a) FROM record_pairs p WHERE NOT EXISTS (SELECT 1 FROM record_pairs q WHERE q.b = p.a)) AS groups,
       (SELECT COUNT(*) FROM records_to_compare) AS waiting`,
  ))!;
