import type { StoredObject } from '@osier/core/kinds';
import { LEADS_TO } from '../store/index-records';
import type { Store } from '../store/store';

/** The records that have an ISBN (ISBN-13). */
export async function recordsWithIsbn(store: Store, isbn: string): Promise<number[]> {
  const rows = await store.rows<{ record: number }>(
    "SELECT record FROM record_keys WHERE kind = 'isbn' AND key = :isbn ORDER BY record",
    { isbn },
  );
  return rows.map((r) => r.record);
}

/** The copy with a barcode, letters the same in either case, and its record. */
export const copyWithBarcode = (
  store: Store,
  code: string,
): Promise<{ id: number; record: number } | undefined> =>
  store.row<{ id: number; record: number }>(
    `SELECT c.id, h.record FROM (SELECT * FROM copies WHERE barcode = :code UNION SELECT * FROM copies WHERE barcode = :code COLLATE NOCASE AND disputed = 0) c
       JOIN holdings h ON h.id = c.holding LIMIT 1`,
    { code },
  );

/** Which of some barcodes are on copies. */
export async function barcodesInUse(store: Store, codes: readonly string[]): Promise<string[]> {
  const rows = await store.rows<{ barcode: string }>(
    'SELECT barcode FROM copies WHERE barcode IN (SELECT value FROM json_each(:codes))',
    { codes: JSON.stringify(codes) },
  );
  return rows.map((r) => r.barcode);
}

/** The heading that one leads to: itself, or the one that it was merged into. */
export async function headingLedTo(store: Store, heading: number): Promise<number> {
  const leads = await store.row<{ id: number }>(LEADS_TO, { heading });
  return leads?.id ?? heading;
}

/** Headings that have some keys, kept forms and see-froms, with the group and key that they have. */
export const headingsByKey = (
  store: Store,
  keys: readonly string[],
): Promise<{ id: number; key: string; kind: string; text: string }[]> =>
  store.rows<{ id: number; key: string; kind: string; text: string }>(
    `SELECT h.id, k.key, k.kind, h.text FROM heading_keys k JOIN headings h ON h.id = k.heading
      WHERE k.key IN (SELECT value FROM json_each(:keys))`,
    { keys: JSON.stringify(keys) },
  );

/** The groups and keys, among some keys, that headings have. */
export const knownHeadingKeys = (
  store: Store,
  keys: readonly string[],
): Promise<{ kind: string; key: string }[]> =>
  store.rows<{ kind: string; key: string }>(
    'SELECT kind, key FROM heading_keys WHERE key IN (SELECT value FROM json_each(:keys))',
    { keys: JSON.stringify(keys) },
  );

/** Records behind one whose stored value has a text in it, in the order of their numbers, at most 200. */
export const recordsWithText = (
  store: Store,
  text: string,
  after: number,
): Promise<{ id: number; value: string }[]> =>
  store.rows<{ id: number; value: string }>(
    'SELECT id, value FROM records WHERE id > :after AND instr(value, :text) > 0 ORDER BY id LIMIT 200',
    { after, text },
  );

/** Records that the index of words has under a match, in the order of their numbers; no more than `atMost`. */
export const recordsMatching = async (store: Store, match: string, atMost: number): Promise<number[]> =>
  (
    await store.rows<{ id: number }>(
      'SELECT rowid AS id FROM record_words WHERE record_words MATCH :match ORDER BY rowid LIMIT :atMost',
      { match, atMost },
    )
  ).map((r) => r.id);

/** The same for a prepared statement of a connection of its own: numbers behind which and up to which, text. */
export const RECORDS_WITH_TEXT =
  'SELECT id, value FROM records WHERE id > ? AND id <= ? AND instr(value, ?) > 0 ORDER BY id';
/** The number of the last record. */
export const LAST_RECORD = 'SELECT ifnull(MAX(id), 0) AS id FROM records';

/** Copies whose barcode begins so, with the title of their record. */
export const copiesWithBarcode = (
  store: Store,
  from: string,
  atMost: number,
): Promise<{ id: number; record: number; barcode: string; title: string }[]> =>
  store.rows<{ id: number; record: number; barcode: string; title: string }>(
    `SELECT c.id, c.record, c.barcode, r.title FROM copies c JOIN record_rows r ON r.id = c.record
      WHERE c.disputed = 0 AND c.barcode >= :from COLLATE NOCASE AND c.barcode < :end COLLATE NOCASE ORDER BY c.barcode COLLATE NOCASE LIMIT :atMost`,
    { from, end: `${from}\uffff`, atMost },
  );

/** Piles with a text in their name, the newest first, with how many lie on each. */
export async function pilesLike(
  store: Store,
  text: string,
  atMost: number,
): Promise<(StoredObject<'pile'> & { readonly count: number })[]> {
  const held = await store.select(
    'pile',
    "name LIKE '%' || :like || '%' ESCAPE '!' ORDER BY id DESC LIMIT :atMost",
    { like: text.replace(/[!%_]/g, '!$&'), atMost },
  );
  const counts = await store.rows<{ pile: number; n: number }>(
    'SELECT pile, COUNT(*) AS n FROM piled WHERE pile IN (SELECT value FROM json_each(:ids)) GROUP BY pile',
    { ids: JSON.stringify(held.map((h) => h.id)) },
  );
  const of = new Map(counts.map((c) => [c.pile, c.n]));
  return held.map((h) => ({ ...h, count: of.get(h.id) ?? 0 }));
}

/** Some records as a list names them, with their copies and the branches that have any. */
export const briefsOf = (
  store: Store,
  ids: readonly number[],
): Promise<{ id: number; title: string; author: string; year: string; copies: number; branches: string }[]> =>
  store.rows(
    `SELECT r.id, r.title, r.author, r.year,
        (SELECT COUNT(*) FROM copies c WHERE c.record = r.id) AS copies,
        COALESCE((SELECT GROUP_CONCAT(branch, ' ') FROM (SELECT DISTINCT h.branch FROM holdings h WHERE h.record = r.id ORDER BY 1)), '') AS branches
       FROM record_rows r WHERE r.id IN (SELECT value FROM json_each(:ids))`,
    { ids: JSON.stringify(ids) },
  );

/** Where some records lie on piles. */
export const piledRecords = (store: Store, records: readonly number[]): Promise<StoredObject<'piled'>[]> =>
  store.select('piled', "kind = 'record' AND object IN (SELECT value FROM json_each(:records))", {
    records: JSON.stringify(records),
  });

/** The record that the number of a merged one leads to, through as many merges as there were; null where it leads nowhere. */
export const recordLedTo = async (store: Store, record: number): Promise<number | null> =>
  (
    await store.row<{ id: number }>(
      `WITH RECURSIVE lead (id) AS (SELECT into_record FROM record_leads WHERE id = :record
         UNION SELECT l.into_record FROM lead JOIN record_leads l ON l.id = lead.id)
       SELECT r.id FROM lead JOIN records r ON r.id = lead.id LIMIT 1`,
      { record },
    )
  )?.id ?? null;
