import { keptJson } from '../store/kept-json';
import type { Store } from '../store/store';

/** A copy as a stocktake knows it, but for its being on loan. */
export interface ShelfRow {
  readonly copyId: number;
  readonly barcode: string;
  readonly status: string;
  readonly type: string;
  readonly branch: string;
  readonly location: string;
  readonly callNumber: string;
  readonly shelfKey: string;
  readonly recordId: number;
  readonly title: string;
  /** It is one of the stretch. */
  readonly isOfStretch: number;
  /** How often it was scanned in the stocktake. */
  readonly timesSeen: number;
}

/** A copy as it was when a stocktake started, where it is of its stretch; its status is that of now. */
const SHELF_ROW = `SELECT c.id AS copyId, c.barcode, c.status, c.type, ifnull(e.branch, h.branch) AS branch, ifnull(e.location, h.location) AS location,
       ifnull(e.call_number, h.call_number) AS callNumber, ifnull(e.shelf_key, h.shelf_key) AS shelfKey, h.record AS recordId, ifnull(r.title, '') AS title,
       e.copy IS NOT NULL AS isOfStretch, ifnull(n.times, 0) AS timesSeen
       FROM copies c JOIN holdings h ON h.id = c.holding LEFT JOIN record_rows r ON r.id = h.record
       LEFT JOIN stocktake_expected e ON e.stocktake = :id AND e.copy = c.id LEFT JOIN stocktake_seen n ON n.stocktake = :id AND n.code = c.barcode`;

/** The copy with a barcode. */
export const shelfCopy = (store: Store, id: number, barcode: string): Promise<ShelfRow | undefined> =>
  store.row<ShelfRow>(`${SHELF_ROW} WHERE c.barcode = :barcode`, { id, barcode });

/** The copies that have some barcodes. */
export async function shelfCopies(
  store: Store,
  id: number,
  barcodes: readonly string[],
): Promise<ReadonlyMap<string, ShelfRow>> {
  if (barcodes.length === 0) return new Map();
  const rows = await store.rows<ShelfRow>(
    `${SHELF_ROW} WHERE c.barcode IN (SELECT value FROM json_each(:barcodes))`,
    { id, barcodes: JSON.stringify(barcodes) },
  );
  return new Map(rows.map((r) => [r.barcode, r]));
}

/** The numbers of copies whose codes were scanned behind a number, with the last day on which each was. */
export const copiesSeen = (
  store: Store,
  id: number,
  after: number,
  atMost: number,
): Promise<{ copy: number; day: string }[]> =>
  store.rows<{ copy: number; day: string }>(
    `SELECT c.id AS copy, n.day FROM stocktake_seen n CROSS JOIN copies c ON c.barcode = n.code
      WHERE n.stocktake = :id AND c.id > :after ORDER BY c.id LIMIT :atMost`,
    { id, after, atMost },
  );

/** Which of some codes were scanned in a stocktake. */
export const seenAmong = async (
  store: Store,
  id: number,
  codes: readonly string[],
): Promise<ReadonlySet<string>> =>
  new Set(
    (
      await store.rows<{ code: string }>(
        `SELECT s.code FROM json_each(:codes) v CROSS JOIN stocktake_seen s ON s.stocktake = :id AND s.code = v.value`,
        { id, codes: JSON.stringify(codes) },
      )
    ).map((r) => r.code),
  );

/** The last day on which each of some codes was scanned in a stocktake. */
export async function daysSeen(
  store: Store,
  id: number,
  codes: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  if (codes.length === 0) return new Map();
  const rows = await store.rows<{ code: string; day: string }>(
    `SELECT s.code, s.day FROM json_each(:codes) v CROSS JOIN stocktake_seen s ON s.stocktake = :id AND s.code = v.value`,
    { id, codes: JSON.stringify(codes) },
  );
  return new Map(rows.map((r) => [r.code, r.day]));
}

/** How often a code was scanned in a stocktake. */
export const timesSeen = async (store: Store, id: number, code: string): Promise<number> =>
  (
    await store.row<{ times: number }>(
      'SELECT times FROM stocktake_seen WHERE stocktake = :id AND code = :code',
      { id, code },
    )
  )?.times ?? 0;

/** Of some walks the barcode of the copy of the stretch that was scanned last in each; undefined where none was. */
export async function lastOfWalks(
  store: Store,
  id: number,
  walks: readonly { readonly device: string; readonly run: string }[],
): Promise<(string | undefined)[]> {
  const rows = await store.rows<{ code: string | null }>(
    `SELECT (SELECT s.code FROM scans s WHERE s.purpose = 'stocktake' AND s.work = :id AND s.device = v.value ->> 'device' AND s.run = v.value ->> 'run'
        AND EXISTS (SELECT 1 FROM stocktake_expected e WHERE e.stocktake = :id AND e.barcode = s.code) ORDER BY s.id DESC LIMIT 1) AS code
       FROM json_each(:walks) v ORDER BY v.key`,
    { id, walks: JSON.stringify(walks) },
  );
  return rows.map((r) => r.code ?? undefined);
}

const UNSEEN = `e.counts = 1 AND NOT EXISTS (SELECT 1 FROM stocktake_seen n WHERE n.stocktake = e.stocktake AND n.code = e.barcode)`;

/** A place on the shelves of a stocktake. */
export interface ShelfPlace {
  readonly stocktake: number;
  readonly location: string;
  readonly shelfKey: string;
  readonly barcode: string;
}
/** An expected copy that is still to come. */
export interface NextOnShelf {
  readonly barcode: string;
  readonly callNumber: string;
  readonly title: string;
}

/** Of some places the expected copy that stands next behind each in its location and was not scanned yet. */
export async function nextExpected(
  store: Store,
  places: readonly ShelfPlace[],
): Promise<(NextOnShelf | null)[]> {
  const rows = await store.rows<{ next: string | null }>(
    `SELECT (SELECT json_object('barcode', e.barcode, 'callNumber', e.call_number, 'title', e.title) FROM stocktake_expected e
        WHERE e.stocktake = v.value ->> 'stocktake' AND e.location = v.value ->> 'location'
          AND (e.shelf_key, e.barcode) > (v.value ->> 'shelfKey', v.value ->> 'barcode') AND ${UNSEEN}
        ORDER BY e.shelf_key, e.barcode LIMIT 1) AS next FROM json_each(:places) v ORDER BY v.key`,
    { places: JSON.stringify(places) },
  );
  return rows.map(({ next }) => (next === null ? null : keptJson<NextOnShelf>(next)));
}

/** More copies than this between two scans are not counted. */
const MOST_BETWEEN = 1000;

/** Of some pairs of places how many expected copies of the first one's location stand between them and were not scanned. */
export async function unseenBetween(
  store: Store,
  pairs: readonly { readonly from: ShelfPlace; readonly to: Pick<ShelfPlace, 'shelfKey' | 'barcode'> }[],
): Promise<number[]> {
  const flat = pairs.map(({ from, to }) => ({ ...from, toKey: to.shelfKey, toCode: to.barcode }));
  const rows = await store.rows<{ n: number }>(
    `SELECT (SELECT COUNT(*) FROM (SELECT 1 FROM stocktake_expected e WHERE e.stocktake = v.value ->> 'stocktake' AND e.location = v.value ->> 'location'
        AND (e.shelf_key, e.barcode) > (v.value ->> 'shelfKey', v.value ->> 'barcode')
        AND (e.shelf_key, e.barcode) < (v.value ->> 'toKey', v.value ->> 'toCode') AND ${UNSEEN} LIMIT ${MOST_BETWEEN})) AS n
       FROM json_each(:pairs) v ORDER BY v.key`,
    { pairs: JSON.stringify(flat) },
  );
  return rows.map((r) => r.n);
}

/** Which of some codes are of copies that are expected and were not scanned. */
export async function expectedUnseen(store: Store, id: number, codes: readonly string[]): Promise<string[]> {
  const rows = await store.rows<{ barcode: string }>(
    `SELECT e.barcode FROM json_each(:codes) w CROSS JOIN stocktake_expected e INDEXED BY stocktake_expected_barcode ON e.stocktake = :id AND e.barcode = w.value WHERE ${UNSEEN}`,
    { id, codes: JSON.stringify(codes) },
  );
  return rows.map((r) => r.barcode);
}
