import { HEADING_FORM, headingGroup, headingsOf, type Heading } from '@osier/core/headings';
import { KINDS } from '@osier/core/kinds';
import type { MarcRecord } from '@osier/core/marc';
import type { Transaction } from '../store/database';
import { headingKeyKind, indexHeadings, indexRecords } from '../store/index-records';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import { tableOf } from '../store/tables';
import type { Projection } from './projection';

/** Keys and words by which records are found, and keys of headings with their see-froms. */
export const recordIndex: Projection = {
  name: 'headings',
  // Of the forms under which headings are known, and of the columns that are computed of them.
  version: HEADING_FORM.version + (KINDS.heading.computed ?? 1) - 1,
  of: ['record', 'heading'],
  async apply(store, changes, tx) {
    const records = changes.of('record');
    if (records.length) {
      const isNew = new Set(records.filter((c) => c.before === null && c.version === 0).map((c) => c.id));
      await indexRecords(store, new Map(records.map((c) => [c.id, c.after])), isNew, tx);
    }
    const headings = changes.of('heading');
    if (headings.length) await indexHeadings(store, new Map(headings.map((c) => [c.id, c.after])), tx);
  },
  rebuild: headingKeysAnew,
};

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
  const checker = await store.checkerNow();
  const { columns, values: computed } = tableOf('heading');
  const rows = held.map((h) => [h.id, ...computed(h.value, checker)]);
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
