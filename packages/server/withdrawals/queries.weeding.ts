import type { WeedBody, WeedQuery } from '@osier/contract';
import { COPY_STATUSES } from '@osier/core/holdings';
import type { WeedCell, WeedUse } from '@osier/core/withdrawals';
import { inStretch, type InStretch } from '../projections/stocktakes';
import type { Store } from '../store/store';

/** Statuses of copies that do not stand on the shelf for anybody to take: they are no candidates. */
const NOT_THERE = COPY_STATUSES.filter((status) => status !== 'available' && status !== 'damaged');

/** The year in which a copy was used last, as SQL: '' where it never was, null where that is not known. */
const USED: Readonly<Record<WeedUse, string>> = {
  lent: "CASE WHEN c.last_loan <> '' THEN substr(c.last_loan, 1, 4) WHEN c.loans = 0 THEN '' END",
  seen: 'substr(c.last_seen, 1, 4)',
};

/**
 * The copies of a shelf with their year of publication and the year they were last used, and their place among the copies of the same part of
 * the same title: those to give up first. Damaged ones come before those whose condition is noted, then the least lent, those not lent and not
 * seen for longest, and the oldest; one of which no loans are known stays before the others.
 */
async function ofShelf(
  store: Store,
  { branch, location, scheme, from, to, use }: WeedQuery,
): Promise<InStretch> {
  const locations = location === '' ? [] : [location];
  const { sql, given } = await inStretch(store, {
    ...{ branch, locations, types: [], leftOut: NOT_THERE },
    ...{ scheme, from, to },
  });
  return {
    sql: `WITH of_shelf AS (SELECT c.barcode, h.shelf_key, CASE WHEN r.year GLOB '[0-9][0-9][0-9][0-9]' THEN r.year ELSE '' END AS year, ${USED[use]} AS used,
        ROW_NUMBER() OVER (PARTITION BY c.record, c.part
          ORDER BY c.status = 'damaged' DESC, ifnull(c.value ->> 'condition', '') <> '' DESC, c.loans IS NULL, c.loans, c.last_loan, c.last_seen, c.acquired, c.id)
          < COUNT(*) OVER (PARTITION BY c.record, c.part) AS spare
       FROM holdings h CROSS JOIN copies c ON c.holding = h.id JOIN record_rows r ON r.id = h.record WHERE ${sql})`,
    given,
  };
}

/** The copies of a shelf, counted by both years. */
export async function weedCells(store: Store, place: WeedQuery): Promise<WeedCell[]> {
  const { sql, given } = await ofShelf(store, place);
  return store.rows<WeedCell>(
    `${sql} SELECT year, used, COUNT(*) AS copies, SUM(spare) AS spare FROM of_shelf GROUP BY year, used ORDER BY year, used`,
    given,
  );
}

/** Whether loan figures were loaded for any copy. */
export const hasLoanFigures = async (store: Store): Promise<boolean> =>
  (await store.row('SELECT 1 AS any FROM copies WHERE ifnull(loans, -1) > -1 LIMIT 1')) !== undefined;

/** Most candidates that are put on a list at once. */
const MOST = 20_000;

/** Barcodes of the candidates of a shelf, in its order. */
export async function weedCandidates(
  store: Store,
  { publishedBefore, usedBefore, spareOnly, ...place }: WeedBody,
): Promise<readonly string[]> {
  const { sql, given } = await ofShelf(store, place);
  const rows = await store.rows<{ barcode: string }>(
    `${sql} SELECT barcode FROM of_shelf
       WHERE (:publishedBefore IS NULL OR (year <> '' AND CAST(year AS INTEGER) < :publishedBefore))
         AND (:usedBefore IS NULL OR used = '' OR CAST(used AS INTEGER) < :usedBefore) AND (:spareOnly = 0 OR spare = 1)
       ORDER BY shelf_key, barcode LIMIT ${MOST}`,
    { ...given, publishedBefore, usedBefore, spareOnly: spareOnly ? 1 : 0 },
  );
  return rows.map((r) => r.barcode);
}
