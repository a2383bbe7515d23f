import type { Copy } from '@osier/core/holdings';
import { sameValue } from '@osier/core/changes';
import { fold } from '@osier/core/text';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import type { Projection } from './projection';

/** Copies that are looked at in one transaction. */
const AT_ONCE = 5000;

/** What copies have in the local fields of the library, as it is and folded, by which they are found. */
export const localValues: Projection = {
  name: 'local-values',
  version: 1,
  of: ['copy'],
  async apply(store, changes, tx) {
    const changed = changes
      .of('copy')
      .filter(({ before, after }) => !sameValue(before?.local ?? [], after?.local ?? []));
    if (changed.length === 0) return;
    await store.run(
      'DELETE FROM local_values WHERE copy IN (SELECT value FROM json_each(:copies))',
      { copies: JSON.stringify(changed.map((c) => c.id)) },
      tx,
    );
    await keep(
      store,
      changed.flatMap(({ id, after }) => (after ? [{ id, value: after }] : [])),
      tx,
    );
  },
  async rebuild(store) {
    await store.write((tx) => store.run('DELETE FROM local_values', {}, tx));
    for (let after = 0; ;) {
      const copies = await store.select(
        'copy',
        `id > :after AND json_type(value, '$.local') IS NOT NULL ORDER BY id LIMIT ${AT_ONCE}`,
        { after },
      );
      const last = copies.at(-1);
      if (!last) return;
      await store.write((tx) => keep(store, copies, tx));
      after = last.id;
    }
  },
};

const keep = (
  store: Store,
  copies: readonly { readonly id: number; readonly value: Copy }[],
  tx: Transaction,
): Promise<void> =>
  insertRows(
    store,
    'INSERT OR REPLACE',
    'local_values',
    ['copy', 'field', 'exact', 'value'],
    copies.flatMap(({ id, value }) => (value.local ?? []).map((l) => [id, l.field, l.value, fold(l.value)])),
    tx,
  );

/** How many copies have a value in each local field. */
export async function countLocalValues(store: Store): Promise<Map<number, number>> {
  const rows = await store.rows<{ field: number; n: number }>(
    'SELECT f.id AS field, (SELECT COUNT(*) FROM local_values v WHERE v.field = f.id) AS n FROM local_fields f',
  );
  return new Map(rows.map((r) => [r.field, r.n]));
}
