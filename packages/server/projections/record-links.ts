import { linksOf } from '@osier/core/links';
import type { MarcRecord } from '@osier/core/marc';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import type { Projection } from './projection';

const AT_ONCE = 2000;

/** Which records lead to which web addresses. */
export const recordLinks: Projection = {
  name: 'record-links',
  version: 1,
  of: ['record'],
  async apply(store, changes, tx) {
    const records = changes.of('record');
    const gone = records.filter(({ before }) => before !== null && linksOf(before).length).map((c) => c.id);
    if (gone.length)
      await store.run(
        'DELETE FROM record_links WHERE record IN (SELECT value FROM json_each(:gone))',
        { gone: JSON.stringify(gone) },
        tx,
      );
    await keep(
      store,
      records.flatMap(({ id, after }) => (after === null ? [] : [{ id, value: after }])),
      tx,
    );
  },
  async rebuild(store) {
    await store.write((tx) => store.run('DELETE FROM record_links', {}, tx));
    for (let after = 0; ;) {
      const held = await store.select('record', `id > :after ORDER BY id LIMIT ${AT_ONCE}`, { after });
      const last = held.at(-1);
      if (!last) return;
      await store.write((tx) => keep(store, held, tx));
      after = last.id;
    }
  },
};

async function keep(
  store: Store,
  records: readonly { readonly id: number; readonly value: MarcRecord }[],
  tx: Transaction,
): Promise<void> {
  const rows = records.flatMap(({ id, value }) => linksOf(value).map((l) => [id, l.url]));
  if (rows.length) await insertRows(store, 'INSERT', 'record_links', ['record', 'url'], rows, tx);
}
