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
