import type { PiledKind } from '@osier/core/piles';
import type { Store } from '../store/store';

/** How many things lie on each pile, those included that are not in the catalogue now. */
export const countPiled = (store: Store): Promise<{ pile: number; n: number }[]> =>
  store.rows<{ pile: number; n: number }>(
    'SELECT pile, COUNT(DISTINCT object) AS n FROM piled GROUP BY pile',
  );

/** Which of some records or copies lie on a pile. */
export async function lyingOn(
  store: Store,
  pile: number,
  kind: PiledKind,
  objects: readonly number[],
): Promise<number[]> {
  const rows = await store.rows<{ object: number }>(
    `SELECT p.object FROM json_each(:objects) w CROSS JOIN piled p ON p.pile = :pile AND p.kind = :kind AND p.object = w.value`,
    { pile, kind, objects: JSON.stringify(objects) },
  );
  return rows.map((r) => r.object);
}

/** Something on a pile, with what a list says of it. */
export interface LyingRow {
  readonly object: number;
  readonly record: number;
  readonly title: string;
  readonly author: string;
  readonly year: string;
  readonly barcode: string;
  readonly branch: string;
  readonly location: string;
  readonly status: string;
  readonly callNumber: string;
  /** What it is sorted by. */
  readonly shelf: string;
  readonly sort: string;
}
const DISTINCT_ON = 'SELECT DISTINCT object FROM piled WHERE pile = :pile';
const ROWS: Readonly<Record<PiledKind, string>> = {
  record: `SELECT r.id AS object, r.id AS record, r.title, r.author, r.year, '' AS barcode, '' AS branch, '' AS location, '' AS status,
      COALESCE((SELECT call_number FROM holdings h WHERE h.record = r.id ORDER BY h.id LIMIT 1), '') AS callNumber, '' AS shelf, r.sort
    FROM (${DISTINCT_ON}) p JOIN record_rows r ON r.id = p.object
    WHERE (r.sort, r.id) > (:sort, :id) ORDER BY r.sort, r.id LIMIT :atMost`,
  copy: `SELECT c.id AS object, r.id AS record, r.title, r.author, r.year, c.barcode, h.branch, h.location, c.status, h.call_number AS callNumber,
      h.branch || ' ' || h.shelf_key AS shelf, r.sort
    FROM (${DISTINCT_ON}) p JOIN copies c ON c.id = p.object JOIN holdings h ON h.id = c.holding JOIN record_rows r ON r.id = h.record
    WHERE (h.branch || ' ' || h.shelf_key, r.sort, c.id) > (:shelf, :sort, :id) ORDER BY shelf, r.sort, c.id LIMIT :atMost`,
};

/** Where a page of a pile begins: behind a shelf place ('' for records), a title and a number. */
export type AfterPiled = readonly [shelf: string, sort: string, id: number];

/** What lies on a pile, in the order of the titles (records) or of the shelves (copies), from a place on. */
export const pageOfPile = (
  store: Store,
  of: PiledKind,
  { after, ...page }: { readonly pile: number; readonly after: AfterPiled | null; readonly atMost: number },
): Promise<LyingRow[]> => {
  const [shelf, sort, id] = after ?? ['', '', 0];
  return store.rows<LyingRow>(ROWS[of], { ...page, shelf, sort, id });
};

const PRESENT: Readonly<Record<PiledKind, string>> = { record: 'records', copy: 'copies' };

/** How many things lie on a pile, and how many of them are in the catalogue now. */
export const countLying = async (
  store: Store,
  pile: number,
  of: PiledKind,
): Promise<{ all: number; there: number }> =>
  (await store.row<{ all: number; there: number }>(
    `SELECT COUNT(*) AS "all", COUNT(o.id) AS there FROM (${DISTINCT_ON}) p LEFT JOIN ${PRESENT[of]} o ON o.id = p.object`,
    { pile },
  ))!;

/** The copies of records, at one branch if one is given. */
export async function copiesOfRecords(
  store: Store,
  records: readonly number[],
  branch?: string,
): Promise<number[]> {
  const rows = await store.rows<{ id: number }>(
    `SELECT c.id FROM holdings h JOIN copies c ON c.holding = h.id
      WHERE h.record IN (SELECT value FROM json_each(:records)) ${branch ? 'AND h.branch = :branch' : ''} ORDER BY c.id`,
    { records: JSON.stringify(records), branch },
  );
  return rows.map((r) => r.id);
}

/** Whether a pile is there or was there: its row is kept when it goes. */
export const pileWasThere = async (store: Store, pile: number): Promise<boolean> =>
  (await store.row('SELECT id FROM piles WHERE id = :pile', { pile })) !== undefined;

/** The piles that have a name, letters the same in either case. */
export async function pilesNamed(store: Store, name: string): Promise<number[]> {
  const rows = await store.rows<{ id: number }>(
    'SELECT id FROM piles WHERE name = :name COLLATE NOCASE AND gone = 0',
    { name },
  );
  return rows.map((r) => r.id);
}

/** The barcodes of the copies that lie on a pile, in the order in which they were put there. */
export const barcodesOfPile = async (store: Store, pile: number): Promise<string[]> =>
  (
    await store.rows<{ barcode: string }>(
      "SELECT c.barcode FROM piled p JOIN copies c ON c.id = p.object WHERE p.pile = :pile AND p.kind = 'copy' AND c.barcode <> '' GROUP BY c.id ORDER BY MIN(p.id)",
      { pile },
    )
  ).map((r) => r.barcode);
