import { shelfKey, type PrefixOrder } from '@osier/core/callnumbers';
import { SHELF_KEY_VERSION } from '@osier/core/kinds';
import { textNumber } from '@osier/core/text';
import type { Transaction } from '../store/database';
import type { Store } from '../store/store';
import { markStocktakes } from './stocktakes';

/** Holdings of one transaction. */
const AT_ONCE = 500;
const NAME = 'holding shelf_key';

/** The rule that places on the shelf are computed by: its version, and the library's own order of prefixes. */
const ruleOf = (order: PrefixOrder): number =>
  order.length === 0 ? SHELF_KEY_VERSION : textNumber([SHELF_KEY_VERSION, ...order].join('\n'));
const orderNow = async (store: Store): Promise<PrefixOrder> => (await store.house()).value.prefixOrder ?? [];

/** Whether the places of holdings on the shelf were computed by another rule than today's. */
export async function areShelfKeysOld(store: Store): Promise<boolean> {
  const [kept] = await store.rows<{ version: number }>(
    'SELECT version FROM key_versions WHERE name = :name',
    { name: NAME },
  );
  return kept?.version !== ruleOf(await orderNow(store));
}

/**
 * Computes the places of all holdings on the shelf anew, in short transactions, and those of their copies and of what open stocktakes expect.
 * Begun again from the first when it was ended between two pieces. Gives how many holdings were looked at.
 */
export async function shelfKeysAnew(store: Store, stop: () => boolean = () => false): Promise<number> {
  let looked = 0;
  const order = await orderNow(store);
  for (let after = 0; !stop();) {
    const held = await store.select('holding', `id > :after ORDER BY id LIMIT ${AT_ONCE}`, { after });
    const last = held.at(-1);
    if (last === undefined) {
      for (const { stocktake } of await store.rows<{ stocktake: number }>(
        'SELECT stocktake FROM stocktake_state',
      ))
        await store.write(async (tx) => {
          await expectedAnew(store, stocktake, tx);
          await markStocktakes(store, [stocktake], tx);
        });
      await store.write((tx) =>
        store.run(
          'INSERT INTO key_versions (name, version) VALUES (:name, :version) ON CONFLICT (name) DO UPDATE SET version = excluded.version',
          { name: NAME, version: ruleOf(order) },
          tx,
        ),
      );
      break;
    }
    await store.write(async (tx) => {
      // Read again where nobody else writes: a holding may have been changed since.
      const now = await store.within(tx).readMany(
        'holding',
        held.map((h) => h.id),
      );
      const keys = JSON.stringify(now.map((h) => [h.id, shelfKey(h.value, order)]));
      for (const [table, holding] of [
        ['holdings', 'id'],
        ['copies', 'holding'],
      ] as const)
        await store.run(
          `UPDATE ${table} SET shelf_key = json_extract(v.value, '$[1]') FROM json_each(:keys) v
            WHERE ${table}.${holding} = json_extract(v.value, '$[0]') AND ${table}.shelf_key IS NOT json_extract(v.value, '$[1]')`,
          { keys },
          tx,
        );
    });
    looked += held.length;
    after = last.id;
  }
  return looked;
}

/** A copy that was withdrawn since a stocktake was started keeps the place that it had. */
const expectedAnew = (store: Store, stocktake: number, tx: Transaction): Promise<void> =>
  store.run(
    `UPDATE stocktake_expected SET shelf_key = c.shelf_key FROM copies c
      WHERE stocktake_expected.stocktake = :stocktake AND c.id = stocktake_expected.copy AND c.shelf_key <> stocktake_expected.shelf_key`,
    { stocktake },
    tx,
  );
