import { headingGroup, headingsOf } from '@osier/core/headings';
import type { MarcRecord } from '@osier/core/marc';
import { headingKeyKind } from '../store/index-records';
import { insertRows } from '../store/insert';
import type { Transaction } from '../store/database';
import type { Store } from '../store/store';
import { recountGroups } from './alike-groups';
import type { Projection } from './projection';

/** How many records carry each heading, by group and key; a record that carries it twice counts once. */
export const headingUse: Projection & { recount(store: Store, tx: Transaction): Promise<void> } = {
  name: 'heading-use',
  version: 1,
  of: ['record'],
  async apply(store, changes, tx) {
    const by = new Map<string, number>();
    for (const { before, after } of changes.of('record')) {
      for (const key of carried(before)) by.set(key, (by.get(key) ?? 0) - 1);
      for (const key of carried(after)) by.set(key, (by.get(key) ?? 0) + 1);
    }
    const rows = [...by].filter(([, n]) => n !== 0).map(([key, n]) => [...split(key), n]);
    if (rows.length === 0) return;
    const add = 'ON CONFLICT (kind, key) DO UPDATE SET n = n + excluded.n';
    await insertRows(store, 'INSERT', 'heading_use', ['kind', 'key', 'n'], rows, tx, add);
    await recountGroups(
      store,
      rows.map(([kind, key]) => [String(kind), String(key)]),
      tx,
    );
    if (rows.some(([, , n]) => Number(n) < 0))
      await store.run(
        'DELETE FROM heading_use WHERE n <= 0 AND key IN (SELECT value FROM json_each(:keys))',
        {
          keys: JSON.stringify(rows.map(([, key]) => key)),
        },
        tx,
      );
  },
  rebuild: (store) => store.write((tx) => headingUse.recount(store, tx)),
  /** Counts anew from the keys of records. */
  async recount(store, tx) {
    await store.run('DELETE FROM heading_use', {}, tx);
    await store.run(
      `INSERT INTO heading_use (kind, key, n) SELECT kind, key, COUNT(*) FROM record_keys
        WHERE kind >= 'heading ' AND kind < 'heading!' GROUP BY kind, key`,
      {},
      tx,
    );
  },
};

const MARK = '\u0000';
const split = (key: string): string[] => key.split(MARK);

/** The groups and keys of the headings that a record carries, each once. */
const carried = (marc: MarcRecord | null): ReadonlySet<string> =>
  new Set(marc ? headingsOf(marc).map((h) => `${headingKeyKind(headingGroup(h))}${MARK}${h.key}`) : []);
