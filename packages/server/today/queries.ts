import type { Today } from '@osier/contract';
import type { Store } from '../store/store';

/** The deliveries of which records wait, the newest first, with how many of those have errors. */
export const waitingDeliveries = (store: Store): Promise<Today['deliveries']> =>
  store.rows<Today['deliveries'][number]>(
    `SELECT d.id, d.name, SUM(c.n) AS waiting, SUM(c.errors) AS errors FROM delivery_counts c JOIN deliveries d ON d.id = c.delivery
      WHERE c.state = 'waiting' AND c.n > 0 AND d.gone = 0 GROUP BY d.id ORDER BY d.id DESC`,
  );

/** The open withdrawal lists, the newest first, with how many codes each has. */
export const openLists = (store: Store): Promise<Today['withdrawalLists']> =>
  store.rows<Today['withdrawalLists'][number]>(
    `SELECT l.id, l.name, (SELECT COUNT(*) FROM scans s WHERE s.purpose = 'withdrawal' AND s.work = l.id) AS codes
       FROM withdrawal_lists l WHERE l.state = 'open' ORDER BY l.id DESC`,
  );

/** The open stocktakes, the newest first, with how each stands. */
export const openStocktakes = (store: Store): Promise<Today['stocktakes']> =>
  store.rows<Today['stocktakes'][number]>(
    `SELECT s.id, json_extract(s.value, '$.name') AS name, COALESCE(t.found, 0) AS found, COALESCE(t.expected, 0) AS expected
       FROM stocktakes s LEFT JOIN stocktake_state t ON t.stocktake = s.id WHERE s.state = 'open' ORDER BY s.id DESC`,
  );
