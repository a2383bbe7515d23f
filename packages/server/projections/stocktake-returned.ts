import type { Store } from '../store/store';

/** Which of some codes are of copies that were marked missing in a stocktake and are recorded so still. */
export const markedAndScanned = async (
  store: Store,
  id: number,
  codes: readonly string[],
): Promise<string[]> =>
  (
    await store.rows<{ code: string }>(
      `SELECT s.code FROM json_each(:codes) v CROSS JOIN settled_findings s ON s.stocktake = :id AND s.finding = 'missing' AND s.code = v.value AND s.disputed = 0
         JOIN copies c ON c.barcode = s.code AND c.status = 'missing'
        WHERE s.value ->> 'how' = 'mark-missing' ORDER BY s.code`,
      { id, codes: JSON.stringify(codes) },
    )
  ).map((r) => r.code);

/** Who scanned a code last; of one that came with a file, the head. */
export const scannedBy = (
  store: Store,
  id: number,
  code: string,
): Promise<{ id: number; name: string } | undefined> =>
  store.row<{ id: number; name: string }>(
    `SELECT id, name FROM people WHERE id = ifnull(
       (SELECT person FROM scans WHERE purpose = 'stocktake' AND work = :id AND code = :code ORDER BY id DESC LIMIT 1),
       (SELECT MIN(id) FROM people WHERE role = 'head' AND active = 1))`,
    { id, code },
  );
