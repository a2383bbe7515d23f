import type { WeedBody, WeedQuery } from '@osier/contract';
import { COPY_STATUSES } from '@osier/core/holdings';
import type { WeedCell } from '@osier/core/withdrawals';
import { inStretch } from '../projections/stocktakes';
import type { Store } from '../store/store';

/** Statuses of copies that do not stand on the shelf for anybody to take: they are no candidates. */
const NOT_THERE = COPY_STATUSES.filter((status) => status !== 'available' && status !== 'damaged');

/**
 * The copies of a shelf with their year of publication and the year they were last seen, and their place among the copies of the same part of
 * the same title: those to give up first. Damaged ones come before those whose condition is noted, then those not seen for longest, then the oldest.
 */
function ofShelf({ branch, location, scheme, from, to }: WeedQuery): {
  readonly sql: string;
  readonly given: Record<string, unknown>;
} {
  const locations = location === '' ? [] : [location];
  const { sql, given } = inStretch({ branch, locations, types: [], leftOut: NOT_THERE, scheme, from, to });
  return {
    sql: `WITH of_shelf AS (SELECT c.barcode, h.shelf_key, CASE WHEN r.year GLOB '[0-9][0-9][0-9][0-9]' THEN r.year ELSE '' END AS year, substr(c.last_seen, 1, 4) AS seen,
        ROW_NUMBER() OVER (PARTITION BY c.record, c.part
          ORDER BY c.status = 'damaged' DESC, ifnull(c.value ->> 'condition', '') <> '' DESC, c.last_seen, c.acquired, c.id) < COUNT(*) OVER (PARTITION BY c.record, c.part) AS spare
       FROM holdings h CROSS JOIN copies c ON c.holding = h.id JOIN record_rows r ON r.id = h.record WHERE ${sql})`,
    given,
  };
}

/** The copies of a shelf, counted by both years. */
export function weedCells(store: Store, place: WeedQuery): Promise<WeedCell[]> {
  const { sql, given } = ofShelf(place);
  return store.rows<WeedCell>(
    `${sql} SELECT year, seen, COUNT(*) AS copies, SUM(spare) AS spare FROM of_shelf GROUP BY year, seen ORDER BY year, seen`,
    given,
  );
}

/** Most candidates that are put on a list at once. */
const MOST = 20_000;

/** Barcodes of the candidates of a shelf, in its order. */
export async function weedCandidates(
  store: Store,
  { publishedBefore, seenBefore, spareOnly, ...place }: WeedBody,
): Promise<readonly string[]> {
  const { sql, given } = ofShelf(place);
  const rows = await store.rows<{ barcode: string }>(
    `${sql} SELECT barcode FROM of_shelf
       WHERE (:publishedBefore IS NULL OR (year <> '' AND CAST(year AS INTEGER) < :publishedBefore))
         AND (:seenBefore IS NULL OR seen = '' OR CAST(seen AS INTEGER) < :seenBefore) AND (:spareOnly = 0 OR spare = 1)
       ORDER BY shelf_key, barcode LIMIT ${MOST}`,
    { ...given, publishedBefore, seenBefore, spareOnly: spareOnly ? 1 : 0 },
  );
  return rows.map((r) => r.barcode);
}
