import type { Store } from '../store/store';

/** How many copies some holdings have. */
export const countCopiesAt = (
  store: Store,
  holdings: readonly number[],
): Promise<{ holding: number; n: number }[]> =>
  store.rows<{ holding: number; n: number }>(
    'SELECT holding, COUNT(*) AS n FROM copies WHERE holding IN (SELECT value FROM json_each(:holdings)) GROUP BY holding',
    { holdings: JSON.stringify(holdings) },
  );

/** Scans that were made as one walked, by ten minutes: `from` is an ISO date and time. */
export const scansByTime = (store: Store, stocktake: number): Promise<{ from: string; scans: number }[]> =>
  store.rows<{ from: string; scans: number }>(
    `SELECT substr(at, 1, 15) || '0:00Z' AS "from", COUNT(*) AS scans FROM scans
      WHERE purpose = 'stocktake' AND work = :stocktake GROUP BY 1 ORDER BY 1`,
    { stocktake },
  );
