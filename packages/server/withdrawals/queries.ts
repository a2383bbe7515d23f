import type { Store } from '../store/store';

/** How many codes each withdrawal list has. */
export const countCodes = (store: Store): Promise<{ work: number; n: number }[]> =>
  store.rows<{ work: number; n: number }>(
    "SELECT work, COUNT(*) AS n FROM scans WHERE purpose = 'withdrawal' GROUP BY work",
  );

/** The open list of a name, letters the same in either case. */
export const openListNamed = async (store: Store, name: string) =>
  (await store.select('withdrawlist', "state = 'open' AND name = :name COLLATE NOCASE LIMIT 1", { name }))[0];

/** A copy with where it stands, as a verdict on it is made from. */
export interface CopyFacts {
  readonly copyId: number;
  readonly holdingId: number;
  readonly recordId: number;
  readonly barcode: string;
  readonly title: string;
  readonly branch: string;
  readonly location: string;
  readonly status: string;
  readonly callNumber: string;
}

/** The copies with some barcodes. */
export const copyFacts = (store: Store, codes: readonly string[]): Promise<CopyFacts[]> =>
  store.rows<CopyFacts>(
    `SELECT c.id AS copyId, c.barcode, c.status, h.id AS holdingId, h.branch, h.location, h.call_number AS callNumber, r.id AS recordId, r.title
       FROM copies c JOIN holdings h ON h.id = c.holding JOIN records r ON r.id = h.record
      WHERE c.barcode IN (SELECT value FROM json_each(:codes))`,
    { codes: JSON.stringify(codes) },
  );

/** The barcodes of a list that are on copies. */
export async function barcodesOnList(store: Store, list: number): Promise<string[]> {
  const rows = await store.rows<{ barcode: string }>(
    "SELECT DISTINCT c.barcode FROM scans s JOIN copies c ON c.barcode = s.code WHERE s.purpose = 'withdrawal' AND s.work = :list",
    { list },
  );
  return rows.map((r) => r.barcode);
}

/** At which branch each copy of some records is: a row a copy. */
export const branchesOfCopies = (
  store: Store,
  records: readonly number[],
): Promise<{ record: number; branch: string }[]> =>
  store.rows<{ record: number; branch: string }>(
    `SELECT h.record, h.branch FROM copies c JOIN holdings h ON h.id = c.holding
      WHERE h.record IN (SELECT value FROM json_each(:records))`,
    { records: JSON.stringify(records) },
  );

/** The records of some copies, with their titles. */
export const titlesOfCopies = (
  store: Store,
  copies: readonly number[],
): Promise<{ id: number; title: string }[]> =>
  store.rows<{ id: number; title: string }>(
    `SELECT DISTINCT r.id, r.title FROM copies c JOIN holdings h ON h.id = c.holding JOIN records r ON r.id = h.record
      WHERE c.id IN (SELECT value FROM json_each(:copies))`,
    { copies: JSON.stringify(copies) },
  );

/** A row of the register with the entry that made it. */
export interface RegisterColumns {
  readonly id: number;
  readonly value: string;
  readonly gone: 0 | 1;
  readonly entry: number;
}

/** The register newest first, before a row if so wanted. */
export const registerRows = (
  store: Store,
  before: number | null,
  atMost: number,
): Promise<RegisterColumns[]> =>
  store.rows<RegisterColumns>(
    `SELECT w.id, w.value, w.gone, (SELECT MIN(o.entry) FROM daybook_objects o WHERE o.kind = 'withdrawn' AND o.object = w.id) AS entry
     FROM withdrawn w ${before ? 'WHERE w.id < :before' : ''} ORDER BY w.id DESC LIMIT :atMost`,
    { before, atMost },
  );
