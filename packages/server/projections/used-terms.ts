import type { UsedTerm } from '@osier/core/editing';
import { KINDS } from '@osier/core/kinds';
import type { MarcRecord } from '@osier/core/marc';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import type { Projection } from './projection';

const POINTS = KINDS.record.access?.terms ?? [];
const AT_ONCE = 2000;
const MARK = '\u0000';

/** How many records have each publisher, place and series, by its folded form and as it is written. */
export const usedTerms: Projection = {
  name: 'used-terms',
  version: 1,
  of: ['record'],
  async apply(store, changes, tx) {
    const by = new Map<string, number>();
    for (const { before, after } of changes.of('record')) {
      if (before) add(by, before, -1);
      if (after) add(by, after, 1);
    }
    await count(store, by, tx);
  },
  async rebuild(store) {
    await store.write((tx) => store.run('DELETE FROM used_terms', {}, tx));
    for (let after = 0; ;) {
      const held = await store.select('record', `id > :after ORDER BY id LIMIT ${AT_ONCE}`, { after });
      const last = held.at(-1);
      if (!last) return;
      const by = new Map<string, number>();
      for (const { value } of held) add(by, value, 1);
      await store.write((tx) => count(store, by, tx));
      after = last.id;
    }
  },
};

/** Adds the terms of a record, each once, to their counts. */
function add(by: Map<string, number>, record: MarcRecord, n: number): void {
  for (const point of POINTS) {
    const texts = new Set(point.extract(record).map((v) => v.text));
    for (const text of texts) {
      const key = point.normalise(text);
      if (key === '') continue;
      const term = [point.name, key, text].join(MARK);
      by.set(term, (by.get(term) ?? 0) + n);
    }
  }
}

async function count(store: Store, by: ReadonlyMap<string, number>, tx: Transaction): Promise<void> {
  const rows = [...by].filter(([, n]) => n !== 0).map(([term, n]) => [...term.split(MARK), n]);
  if (rows.length === 0) return;
  const more = 'ON CONFLICT (kind, key, text) DO UPDATE SET n = n + excluded.n';
  await insertRows(store, 'INSERT', 'used_terms', ['kind', 'key', 'text', 'n'], rows, tx, more);
  if (rows.some((r) => Number(r.at(-1)) < 0))
    await store.run(
      'DELETE FROM used_terms WHERE n <= 0 AND key IN (SELECT value FROM json_each(:keys))',
      { keys: JSON.stringify(rows.map((r) => r[1])) },
      tx,
    );
}

/** The terms of a kind that begin so, the most used first. */
export const termsBeginning = (
  store: Store,
  kind: UsedTerm,
  key: string,
  atMost: number,
): Promise<{ text: string; n: number }[]> =>
  store.rows<{ text: string; n: number }>(
    'SELECT text, n FROM used_terms WHERE kind = :kind AND key >= :key AND key < :end ORDER BY n DESC, text LIMIT :atMost',
    { kind, key, end: `${key}\uffff`, atMost },
  );
