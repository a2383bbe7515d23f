import { headingGroup, headingsOf, type Heading } from '@osier/core/headings';
import type { MarcRecord } from '@osier/core/marc';
import type { Transaction } from './database';
import { headingKeyKind, indexHeadings } from './index-records';
import { insertRows } from './insert';
import { tableOf } from './tables';
import { countAllRolls } from './roll-numbers';
import type { Store } from './store';

/** Keys that are kept, with the version of the rule that makes them, and how they are made anew. */
const KEPT: readonly {
  readonly name: string;
  readonly version: number;
  make(store: Store): Promise<void>;
}[] = [
  { name: 'headings', version: 1, make: headingKeysAnew },
  {
    name: 'label-rolls',
    version: 1,
    make: (store) => store.write((tx) => countAllRolls(store.within(tx), tx)),
  },
];

/** Makes the keys anew whose rule has changed since the store was written; what a kill interrupts is begun again. */
export async function keysOfOld(store: Store): Promise<void> {
  for (const { name, version, make } of KEPT) {
    const row = await store.row<{ version: number }>('SELECT version FROM key_versions WHERE name = :name', {
      name,
    });
    if (row?.version === version) continue;
    await make(store);
    await store.write((tx) =>
      store.run(
        'INSERT INTO key_versions (name, version) VALUES (:name, :version) ON CONFLICT (name) DO UPDATE SET version = excluded.version',
        { name, version },
        tx,
      ),
    );
  }
}

const AT_ONCE = 500;

/** Headings by vocabulary: the columns of each, and the keys under which records and headings are found by them. */
async function headingKeysAnew(store: Store): Promise<void> {
  for (let after = 0; ;) {
    const at = after;
    after = await store.write((tx) => someHeadings(store.within(tx), at, tx));
    if (after === at) break;
  }
  for (let after = 0; ;) {
    const at = after;
    after = await store.write((tx) => someRecords(store.within(tx), at, tx));
    if (after === at) break;
  }
}

async function someHeadings(store: Store, after: number, tx: Transaction): Promise<number> {
  const held = await store.select('heading', `id > :after ORDER BY id LIMIT ${AT_ONCE}`, { after });
  if (held.length === 0) return after;
  const house = await store.rulesNow();
  const { columns, values: computed } = tableOf('heading');
  const rows = held.map((h) => [h.id, ...computed(h.value, house)]);
  // A form that two headings share by the new rule is disputed from then on, but for the first.
  const values = columns.map((c, i) => `${c} = json_extract(v.value, '$[${i + 1}]')`).join(', ');
  await store.bind(
    `UPDATE headings SET disputed = 1 FROM json_each($1) v WHERE headings.id = json_extract(v.value, '$[0]')`,
    [JSON.stringify(rows)],
    tx,
  );
  await store.bind(
    `UPDATE headings SET ${values} FROM json_each($1) v WHERE headings.id = json_extract(v.value, '$[0]')`,
    [JSON.stringify(rows)],
    tx,
  );
  const id = `(SELECT json_extract(value, '$[0]') FROM json_each(:rows))`;
  await store.run(
    `UPDATE headings AS t SET disputed = 0 WHERE t.id IN ${id} AND NOT EXISTS (SELECT 1 FROM headings o
       WHERE o.vocabulary = t.vocabulary AND o.kind = t.kind AND o.key = t.key AND o.merged_into IS NULL AND t.merged_into IS NULL AND o.id < t.id)`,
    { rows: JSON.stringify(rows) },
    tx,
  );
  await indexHeadings(store, new Map(held.map((h): [number, Heading] => [h.id, h.value])), tx);
  return held.at(-1)!.id;
}

async function someRecords(store: Store, after: number, tx: Transaction): Promise<number> {
  const held = await store.select('record', `id > :after ORDER BY id LIMIT ${AT_ONCE}`, { after });
  if (held.length === 0) return after;
  const ids = JSON.stringify(held.map((h) => h.id));
  await store.run(
    "DELETE FROM record_keys WHERE record IN (SELECT value FROM json_each(:ids)) AND kind LIKE 'heading %'",
    { ids },
    tx,
  );
  const keys = held.flatMap(({ id, value }: { id: number; value: MarcRecord }) =>
    headingsOf(value).map((h) => [headingKeyKind(headingGroup(h)), h.key, id]),
  );
  await insertRows(store, 'INSERT OR IGNORE', 'record_keys', ['kind', 'key', 'record'], keys, tx);
  return held.at(-1)!.id;
}
