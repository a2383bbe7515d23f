import type { Stretch } from '@osier/core/stocktake';
import type { InStretch } from '../projections/stocktakes';
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

/** The copies of a stretch by status, and whether they were seen since a day. */
export const countStretch = (
  store: Store,
  { sql, given }: InStretch,
  seenSince: string,
): Promise<{ status: string; isSeen: number; n: number }[]> =>
  store.rows<{ status: string; isSeen: number; n: number }>(
    `SELECT c.status, (:seenSince <> '' AND c.last_seen >= :seenSince) AS isSeen, COUNT(*) AS n
       FROM holdings h JOIN copies c ON c.holding = h.id WHERE ${sql} GROUP BY 1, 2`,
    { ...given, seenSince },
  );

/** Barcodes of the copies of a stretch with some statuses. */
export const barcodesInStretch = async (
  store: Store,
  { sql, given }: InStretch,
  statuses: readonly string[],
  atMost: number,
): Promise<string[]> =>
  (
    await store.rows<{ barcode: string }>(
      `SELECT c.barcode FROM holdings h JOIN copies c ON c.holding = h.id
        WHERE ${sql} AND c.status IN (SELECT value FROM json_each(:statuses)) LIMIT :atMost`,
      { ...given, statuses: JSON.stringify(statuses), atMost },
    )
  ).map((r) => r.barcode);

/** Open stocktakes that have copies of a stretch, with how many. */
export const overlapping = (
  store: Store,
  { sql, given }: InStretch,
): Promise<{ id: number; name: string; copies: number }[]> =>
  store.rows<{ id: number; name: string; copies: number }>(
    `SELECT s.id, s.value ->> 'name' AS name, COUNT(*) AS copies FROM holdings h JOIN copies c ON c.holding = h.id
       CROSS JOIN stocktake_expected e ON e.copy = c.id JOIN stocktakes s ON s.id = e.stocktake AND s.state <> 'closed' WHERE ${sql} GROUP BY 1, 2`,
    given,
  );

/** A file of the same scans that was loaded before. */
export const sameScans = (
  store: Store,
  stocktake: number,
  codes: readonly string[],
): Promise<{ name: string } | undefined> =>
  store.row<{ name: string }>(
    `SELECT value ->> 'name' AS name FROM scan_batches WHERE stocktake = :stocktake AND json_extract(value, '$.codes') = json(:codes) LIMIT 1`,
    { stocktake, codes: JSON.stringify(codes) },
  );

/** A file that was loaded before, by the SHA-256 of its bytes. */
export const sameFile = (
  store: Store,
  stocktake: number,
  file: string,
): Promise<{ name: string } | undefined> =>
  store.row<{ name: string }>(
    `SELECT value ->> 'name' AS name FROM scan_batches WHERE stocktake = :stocktake AND value ->> 'file' = :file LIMIT 1`,
    { stocktake, file },
  );

/** People who scanned a stocktake as they walked, with how many scans each made. */
export const scansByPerson = (store: Store, stocktake: number): Promise<{ name: string; scans: number }[]> =>
  store.rows<{ name: string; scans: number }>(
    `SELECT CASE WHEN r.file > 0 THEN r.name ELSE ifnull(p.name, '') END AS name, SUM(r.scans) AS scans FROM stocktake_runs r
       LEFT JOIN people p ON p.id = r.person WHERE r.stocktake = :stocktake AND r.scans > 0 GROUP BY 1 ORDER BY 2 DESC`,
    { stocktake },
  );

/** The last closed stocktake of the same branches but one. */
export const closedBefore = (
  store: Store,
  { branch, also = [] }: Pick<Stretch, 'branch' | 'also'>,
  id: number,
): Promise<{ id: number; name: string; closedOn: string; report: string } | undefined> =>
  store.row<{ id: number; name: string; closedOn: string; report: string }>(
    `SELECT s.id, s.value ->> 'name' AS name, s.value ->> 'closedOn' AS closedOn, t.result AS report FROM stocktakes s JOIN stocktake_state t ON t.stocktake = s.id
      WHERE s.state = 'closed' AND s.id <> :id AND s.value ->> '$.stretch.branch' = :branch AND ifnull(s.value -> '$.stretch.also', '[]') = :also AND t.result IS NOT NULL ORDER BY s.value ->> 'closedOn' DESC, s.id DESC LIMIT 1`,
    { id, branch, also: JSON.stringify(also) },
  );

/** Whether a job is at work on closing a stocktake. */
export const isBeingClosed = async (store: Store, stocktake: number): Promise<boolean> =>
  (await store.row(
    `SELECT 1 FROM jobs WHERE kind = 'close-stocktake' AND state IN ('waiting', 'running') AND work ->> 'stocktake' = :stocktake`,
    { stocktake },
  )) !== undefined;
