import { RECORD_KEYS_VERSION } from '@osier/core/access';
import type { Transaction } from '../store/database';
import { indexRecords } from '../store/index-records';
import type { Store } from '../store/store';
import { tableOf } from '../store/tables';
import { recordRows } from './record-rows';
import { changesByKind } from '../store/changes-by-kind';
import { update } from '@osier/core/changes';

const NAME = 'record-keys';
/** Records of one transaction. */
const AT_ONCE = 200;

/** Whether what records are listed, matched and found by was computed by an older rule than today's. */
export async function recordKeysAreOld(store: Store): Promise<boolean> {
  const kept = await store.row<{ version: number }>('SELECT version FROM key_versions WHERE name = :name', {
    name: NAME,
  });
  return kept?.version !== RECORD_KEYS_VERSION;
}

/** How far it has come, kept in the transaction of each piece. */
export type KeepPlace = (place: number, done: number, tx: Transaction) => Promise<void>;

/**
 * Computes what records are listed, matched and found by anew, in the order of their numbers from behind `place` on. People work
 * meanwhile with what stands: each piece is a short transaction. `stop` ends it between two pieces.
 */
export async function recordKeysAnew(
  store: Store,
  { place, done }: { readonly place: number; readonly done: number },
  keep: KeepPlace = () => Promise.resolve(),
  stop: () => boolean = () => false,
): Promise<number> {
  for (let [at, n] = [place, done]; ;) {
    if (stop()) return n;
    const [from, before] = [at, n];
    const piece = await store.write(async (tx) => {
      const ids = await someAnew(store.within(tx), from, tx);
      const last = ids.at(-1);
      if (last !== undefined) await keep(last, before + ids.length, tx);
      else await markNew(store, tx);
      return ids;
    });
    const last = piece.at(-1);
    if (last === undefined) return n;
    [at, n] = [last, before + piece.length];
  }
}

const markNew = (store: Store, tx: Transaction): Promise<void> =>
  store.run(
    'INSERT INTO key_versions (name, version) VALUES (:name, :version) ON CONFLICT (name) DO UPDATE SET version = excluded.version',
    { name: NAME, version: RECORD_KEYS_VERSION },
    tx,
  );

async function someAnew(store: Store, after: number, tx: Transaction): Promise<number[]> {
  const held = await store.select('record', `id > :after ORDER BY id LIMIT ${AT_ONCE}`, { after });
  if (held.length === 0) return [];
  const house = await store.rulesNow();
  const { columns, values } = tableOf('record');
  const set = columns.map((c, i) => `${c} = json_extract(v.value, '$[${i + 1}]')`).join(', ');
  await store.bind(
    `UPDATE records SET ${set} FROM json_each($1) v WHERE records.id = json_extract(v.value, '$[0]')`,
    [JSON.stringify(held.map((h) => [h.id, ...values(h.value, house)]))],
    tx,
  );
  await indexRecords(store, new Map(held.map((h) => [h.id, h.value])), new Set(), tx);
  await recordRows.apply(store, changesByKind(held.map((h) => update('record', h, h.value))), tx);
  return held.map((h) => h.id);
}
