import { TO_PULL } from './to-pull';
import type { ScanColumns } from '../store/models';
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
  /** In hundredths; null when not known. */
  readonly price: number | null;
  /** ISO 4217 code of its currency; null for the library's. */
  readonly currency: string | null;
  readonly acquired: string;
  readonly part: string;
  readonly shelfKey: string;
  /** How often and when last it was lent; null and '' where that is not known. */
  readonly loans: number | null;
  readonly lastLoan: string;
}

/** The copies with some barcodes. */
export const copyFacts = (store: Store, codes: readonly string[]): Promise<CopyFacts[]> =>
  store.rows<CopyFacts>(
    `SELECT c.id AS copyId, c.barcode, c.status, c.price, c.value ->> 'currency' AS currency, c.acquired, c.loans, c.last_loan AS lastLoan, h.shelf_key AS shelfKey, ifnull(c.value ->> 'part', '') AS part, h.id AS holdingId, h.branch, h.location, h.call_number AS callNumber, r.id AS recordId, r.title
       FROM copies c JOIN holdings h ON h.id = c.holding JOIN record_rows r ON r.id = h.record
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

/** A copy of a record that is counted. */
export interface CopyOfTitle {
  readonly record: number;
  readonly branch: string;
  readonly part: string;
  readonly barcode: string;
}

/** The copies of some records. */
export const copiesOfTitles = (store: Store, records: readonly number[]): Promise<CopyOfTitle[]> =>
  store.rows<CopyOfTitle>(
    `SELECT h.record, h.branch, ifnull(c.value ->> 'part', '') AS part, c.barcode FROM json_each(:records) v
       CROSS JOIN holdings h ON h.record = v.value JOIN copies c ON c.holding = h.id`,
    { records: JSON.stringify(records) },
  );

/** The headings of some records that one record alone carries, by group and key. */
export const headingsOnce = (
  store: Store,
  records: readonly number[],
): Promise<{ record: number; kind: string; key: string }[]> =>
  store.rows<{ record: number; kind: string; key: string }>(
    `SELECT k.record, k.kind, k.key FROM json_each(:records) v CROSS JOIN record_keys k ON k.record = v.value
        AND k.kind >= 'heading ' AND k.kind < 'heading!' JOIN heading_use u ON u.kind = k.kind AND u.key = k.key AND u.n = 1`,
    { records: JSON.stringify(records) },
  );

/** Codes that are on another open list as well, with its name. */
export async function onOtherLists(
  store: Store,
  list: number,
  codes: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  const rows = await store.rows<{ code: string; name: string }>(
    `SELECT s.code, w.name FROM json_each(:codes) v CROSS JOIN scans s ON s.purpose = 'withdrawal' AND s.code = v.value AND s.work <> :list
       JOIN withdrawal_lists w ON w.id = s.work AND w.state = 'open'`,
    { codes: JSON.stringify(codes), list },
  );
  return new Map(rows.map((r) => [r.code, r.name]));
}

/** The scans of a list that have some codes, or are of copies of the same titles, as they came. */
export const scansOfSameTitles = (
  store: Store,
  list: number,
  codes: readonly string[],
): Promise<ScanColumns[]> =>
  store.rows<ScanColumns>(
    `SELECT DISTINCT s.* FROM scans s WHERE s.purpose = 'withdrawal' AND s.work = :list AND s.code IN (
       SELECT value FROM json_each(:codes) UNION SELECT other.barcode FROM json_each(:codes) v CROSS JOIN copies c ON c.barcode = v.value
         JOIN holdings h ON h.id = c.holding JOIN holdings beside ON beside.record = h.record JOIN copies other ON other.holding = beside.id) ORDER BY s.id`,
    { list, codes: JSON.stringify(codes) },
  );

/** The copies of a list that are to be pulled, in the order of the shelf; 1 where they were scanned since. */
export const pullRows = (
  store: Store,
  list: number,
): Promise<
  (Pick<CopyFacts, 'title' | 'callNumber' | 'branch' | 'location' | 'status'> & {
    code: string;
    pulled: 0 | 1;
  })[]
> =>
  store.rows(
    `SELECT c.barcode AS code, r.title, h.call_number AS callNumber, h.branch, h.location, c.status,
        EXISTS (SELECT 1 FROM scans p WHERE p.purpose = 'withdrawal' AND p.work = :list AND p.code = c.barcode AND p.device <> :toPull) AS pulled
       FROM scans s JOIN copies c ON c.barcode = s.code JOIN holdings h ON h.id = c.holding JOIN record_rows r ON r.id = h.record
      WHERE s.purpose = 'withdrawal' AND s.work = :list AND s.device = :toPull ORDER BY h.branch, h.location, h.shelf_key, c.barcode`,
    { list, toPull: TO_PULL },
  );

/** A person’s last scan of a list. */
export const lastScanBy = (store: Store, list: number, person: number): Promise<ScanColumns | undefined> =>
  store.row<ScanColumns>(
    `SELECT * FROM scans WHERE purpose = 'withdrawal' AND work = :list AND person = :person AND device <> :toPull ORDER BY id DESC LIMIT 1`,
    { list, person, toPull: TO_PULL },
  );

/** The records of some copies, with their titles. */
export const recordsOfCopies = (
  store: Store,
  copies: readonly number[],
): Promise<{ id: number; title: string; author: string; isSuppressed: 0 | 1 }[]> =>
  store.rows<{ id: number; title: string; author: string; isSuppressed: 0 | 1 }>(
    `SELECT DISTINCT r.id, r.title, r.author, EXISTS (SELECT 1 FROM suppressed x WHERE x.id = r.id) AS isSuppressed FROM copies c JOIN holdings h ON h.id = c.holding JOIN record_rows r ON r.id = h.record
      WHERE c.id IN (SELECT value FROM json_each(:copies))`,
    { copies: JSON.stringify(copies) },
  );

/** A row of the register with the entry that made it. */
export interface RegisterEntry {
  readonly id: number;
  readonly value: string;
  readonly gone: 0 | 1;
  readonly entry: number;
}

/** What of the register is wanted; `words` are folded. */
export interface RegisterSearch {
  readonly words: readonly string[];
  readonly branch: string;
  readonly reason: string;
  /** ISO dates, '' for open ends. */
  readonly from: string;
  readonly to: string;
}

const ORDERS = {
  on: 'w.withdrawn_on',
  title: 'w.filing',
  number: 'w.call_number',
  price: 'ifnull(w.price, -1)',
};
/** By what the register is sorted. */
export type RegisterOrder = keyof typeof ORDERS;

function registerWhere({ words, branch, reason, from, to }: RegisterSearch): {
  readonly sql: string;
  readonly given: Record<string, string>;
} {
  const given: Record<string, string> = {};
  const parts = ['1'];
  words.forEach((word, i) => {
    parts.push(`instr(w.words, :word${i}) > 0`);
    given[`word${i}`] = word;
  });
  for (const [sql, name, value] of [
    ['w.branch = :branch', 'branch', branch],
    ['w.reason = :reason', 'reason', reason],
    ['w.withdrawn_on >= :from', 'from', from],
    ['w.withdrawn_on <= :to', 'to', to],
  ] as const) {
    if (value === '') continue;
    parts.push(sql);
    given[name] = value;
  }
  return { sql: parts.join(' AND '), given };
}

/** A page of the register in an order; `after` is the place of the last row before it. */
export function registerRows(
  store: Store,
  search: RegisterSearch,
  order: {
    readonly by: RegisterOrder;
    readonly down: boolean;
    readonly after: { readonly key: string | number; readonly id: number } | null;
    readonly atMost: number;
  },
): Promise<(RegisterEntry & { readonly key: string | number })[]> {
  const { sql, given } = registerWhere(search);
  const [key, way] = [ORDERS[order.by], order.down ? 'DESC' : 'ASC'];
  return store.rows<RegisterEntry & { key: string | number }>(
    `SELECT w.id, w.value, w.gone, ${key} AS key, (SELECT MIN(o.entry) FROM daybook_objects o WHERE o.kind = 'withdrawn' AND o.object = w.id) AS entry
       FROM withdrawn w WHERE ${sql} ${order.after ? `AND (${key}, w.id) ${order.down ? '<' : '>'} (:key, :id)` : ''}
       ORDER BY ${key} ${way}, w.id ${way} LIMIT :atMost`,
    { ...given, atMost: order.atMost, ...(order.after ?? {}) },
  );
}

/** The entries that withdrew copies, by the rows of the register. */
export const entriesOfRegister = (
  store: Store,
  rows: readonly number[],
): Promise<{ id: number; entry: number }[]> =>
  store.rows<{ id: number; entry: number }>(
    `SELECT v.value AS id, MIN(o.entry) AS entry FROM json_each(:rows) v CROSS JOIN daybook_objects o ON o.kind = 'withdrawn' AND o.object = v.value GROUP BY v.value`,
    { rows: JSON.stringify(rows) },
  );

/** The copies, holdings and records that some rows of the register are of. */
export const registerPlaces = (
  store: Store,
  rows: readonly number[],
): Promise<{ copy: number; holding: number; record: number }[]> =>
  store.rows<{ copy: number; holding: number; record: number }>(
    "SELECT value ->> 'copyId' AS copy, holding, record FROM withdrawn WHERE id IN (SELECT value FROM json_each(:rows))",
    { rows: JSON.stringify(rows) },
  );

/** How many rows of the register are meant, and what those cost together that were not restored, by currency. */
export async function countRegister(
  store: Store,
  search: RegisterSearch,
): Promise<{ total: number; sums: { currency: string; price: number }[] }> {
  const { sql, given } = registerWhere(search);
  const rows = await store.rows<{ currency: string; total: number; price: number | null }>(
    `SELECT w.currency, COUNT(*) AS total, SUM(CASE WHEN w.gone = 0 THEN w.price END) AS price FROM withdrawn w WHERE ${sql} GROUP BY w.currency`,
    given,
  );
  return {
    total: rows.reduce((n, r) => n + r.total, 0),
    sums: rows.flatMap(({ currency, price }) => (price === null ? [] : [{ currency, price }])),
  };
}

/** The reasons that stand in the register, the commonest first. */
export const registerReasons = (store: Store): Promise<{ reason: string; n: number }[]> =>
  store.rows<{ reason: string; n: number }>(
    "SELECT reason, COUNT(*) AS n FROM withdrawn WHERE reason <> '' GROUP BY reason ORDER BY n DESC, reason LIMIT 200",
  );
