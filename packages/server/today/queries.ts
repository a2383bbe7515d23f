import type { Today } from '@osier/contract';
import type { Store } from '../store/store';

/** The deliveries of which records wait, the newest first, with how many of those have errors. */
export const waitingDeliveries = (store: Store): Promise<Today['deliveries']> =>
  store.rows<Today['deliveries'][number]>(
    `SELECT d.id, d.name, SUM(c.n) AS waiting, SUM(c.errors) AS errors FROM delivery_counts c JOIN deliveries d ON d.id = c.delivery
      WHERE c.state = 'waiting' AND c.n > 0 AND d.gone = 0 GROUP BY d.id ORDER BY d.id DESC`,
  );

/** The open withdrawal lists, the newest first, with how many codes each has, and who is to confirm it. */
export const openLists = async (store: Store): Promise<Today['withdrawalLists']> =>
  (
    await store.rows<{
      id: number;
      name: string;
      codes: number;
      person: number | null;
      called: string | null;
    }>(
      `SELECT l.id, l.name, (SELECT COUNT(*) FROM scans s WHERE s.purpose = 'withdrawal' AND s.work = l.id) AS codes, p.id AS person, p.name AS called
         FROM withdrawal_lists l LEFT JOIN people p ON p.id = l.value ->> 'confirmer' WHERE l.state = 'open' ORDER BY l.id DESC`,
    )
  ).map(({ person, called, ...list }) => ({
    ...list,
    confirmer: person === null ? null : { id: person, name: called ?? '' },
  }));

/** The open stocktakes, the newest first, with how each stands. */
export const openStocktakes = (store: Store): Promise<Today['stocktakes']> =>
  store.rows<Today['stocktakes'][number]>(
    `SELECT s.id, json_extract(s.value, '$.name') AS name, COALESCE(t.found, 0) AS found, COALESCE(t.expected, 0) AS expected
       FROM stocktakes s LEFT JOIN stocktake_state t ON t.stocktake = s.id WHERE s.state = 'open' ORDER BY s.id DESC`,
  );
