import type { Store } from '../store/store';

/** Which way a page goes: from a place on, behind it, or ahead of it (the nearest first). */
export interface Way {
  readonly goes: 'on' | 'behind' | 'ahead';
  readonly atMost: number;
}

const SIGN = { on: '>=', behind: '>', ahead: '<' } as const;
const order = ({ goes }: Way, ...columns: readonly string[]): string =>
  columns.map((c) => `${c} ${goes === 'ahead' ? 'DESC' : 'ASC'}`).join(', ');

/** A title as it is filed, how many records have it, and the first of them. */
export interface TitleEntry {
  readonly sort: string;
  readonly n: number;
  readonly id: number;
  readonly title: string;
  readonly author: string;
  readonly year: string;
}
/** Titles as they are filed, from a key. */
export const titlesFrom = (store: Store, sort: string, way: Way): Promise<TitleEntry[]> =>
  store.rows<TitleEntry>(
    `SELECT t.sort, t.n, t.id, r.title, r.author, r.year
       FROM (SELECT sort, COUNT(*) AS n, MIN(id) AS id FROM record_rows WHERE sort ${SIGN[way.goes]} :sort
              GROUP BY sort ORDER BY ${order(way, 'sort')} LIMIT :atMost) t CROSS JOIN record_rows r ON r.id = t.id
      ORDER BY ${order(way, 't.sort')}`,
    { sort, atMost: way.atMost },
  );

/** A form of a heading: a kept form, a see-from, or one that records carry without a heading of its own (`heading` null). */
export interface HeadingEntry {
  readonly key: string;
  /** Its kind and vocabulary. */
  readonly group: string;
  readonly heading: number | null;
  readonly text: string | null;
  readonly isKept: boolean;
  readonly n: number;
  /** A record that carries it, where it has no heading. */
  readonly record: number | null;
}

/** The groups of headings of some kinds that there are. */
async function groupsOf(store: Store, kinds: readonly string[]): Promise<string[]> {
  // Stepped through by the index: there are few groups, however many headings.
  const rows = await store.rows<{ kind: string }>(
    `WITH RECURSIVE used (kind) AS (SELECT MIN(kind) FROM heading_use
         UNION ALL SELECT (SELECT MIN(kind) FROM heading_use WHERE kind > used.kind) FROM used WHERE used.kind IS NOT NULL),
       known (kind) AS (SELECT MIN(kind) FROM heading_keys
         UNION ALL SELECT (SELECT MIN(kind) FROM heading_keys WHERE kind > known.kind) FROM known WHERE known.kind IS NOT NULL)
     SELECT substr(kind, 9) AS kind FROM used WHERE kind IS NOT NULL UNION SELECT kind FROM known WHERE kind IS NOT NULL`,
  );
  return rows.map((r) => r.kind).filter((k) => kinds.includes(k.split(' ')[0]!));
}

/** A key as it is filed (the index of migration 030): subdivisions and titles come before longer words. */
const filed = (key: string): string => `replace(${key}, '$', char(9))`;

/** Headings of some kinds with their see-froms, from a key and a group; all forms of one key are on one page. */
export async function headingsFrom(
  store: Store,
  kinds: readonly string[],
  [key, group]: readonly [key: string, group: string],
  way: Way,
): Promise<HeadingEntry[]> {
  const groups = await groupsOf(store, kinds);
  if (groups.length === 0) return [];
  const of = (table: string, name: (i: number) => string) =>
    groups.map(
      (_, i) =>
        `SELECT * FROM (SELECT :g${i} AS grp, key, ${filed('key')} AS filed FROM ${table} WHERE kind = ${name(i)}
             AND ${filed('key')} ${way.goes === 'ahead' ? '<=' : '>='} ${filed(':key')} AND (${filed('key')}, :g${i}) ${SIGN[way.goes]} (${filed(':key')}, :group)
           GROUP BY ${filed('key')}, key ORDER BY ${order(way, filed('key'), 'key')} LIMIT :atMost)`,
    );
  return store.rows<HeadingEntry>(
    `WITH forms AS (SELECT grp, key, filed FROM (${[
      ...of('heading_use', (i) => `'heading ' || :g${i}`),
      ...of('heading_keys', (i) => `:g${i}`),
    ].join(' UNION ')}) ORDER BY ${order(way, 'filed', 'grp')} LIMIT :atMost)
     SELECT f.key, f.grp AS "group", h.id AS heading, h.text, ifnull(h.key = f.key, 1) AS isKept,
        ifnull((SELECT u.n FROM heading_use u WHERE u.kind = 'heading ' || f.grp AND u.key = f.key), 0) AS n,
        (SELECT MIN(k.record) FROM record_keys k WHERE k.kind = 'heading ' || f.grp AND k.key = f.key) AS record
       FROM forms f LEFT JOIN heading_keys k ON k.kind = f.grp AND k.key = f.key
       LEFT JOIN headings h ON h.id = k.heading AND h.merged_into IS NULL
      ORDER BY ${order(way, 'f.filed', 'f.grp')}, h.id`,
    {
      ...Object.fromEntries(groups.map((g, i) => [`g${i}`, g])),
      ...{ key, group, atMost: way.atMost },
    },
  );
}

/** A series or publisher as records write it. */
export interface TermEntry {
  readonly key: string;
  readonly text: string;
  readonly n: number;
}
/** Series or publishers, from a key and a way of writing it. */
export const termsFrom = (
  store: Store,
  kind: 'series' | 'publisher',
  [key, text]: readonly [key: string, text: string],
  way: Way,
): Promise<TermEntry[]> =>
  store.rows<TermEntry>(
    `SELECT key, text, n FROM used_terms WHERE kind = :kind AND (key, text) ${SIGN[way.goes]} (:key, :text)
      ORDER BY ${order(way, 'key', 'text')} LIMIT :atMost`,
    { kind, key, text, atMost: way.atMost },
  );

/** A title at a place on the shelf. */
export interface ShelfEntry {
  readonly shelfKey: string;
  readonly record: number;
  readonly callNumber: string;
  readonly title: string;
  readonly author: string;
  readonly branches: string;
  readonly n: number;
}
/** Titles as they stand on the shelf, from a place and a record. */
export const shelfFrom = (
  store: Store,
  [shelfKey, record]: readonly [shelfKey: string, record: number],
  way: Way,
): Promise<ShelfEntry[]> =>
  store.rows<ShelfEntry>(
    `SELECT s.shelf_key AS shelfKey, s.record, s.callNumber, r.title, r.author, s.branches,
        (SELECT COUNT(*) FROM copies c WHERE c.record = s.record AND c.shelf_key = s.shelf_key) AS n
       FROM (SELECT shelf_key, record, MIN(call_number) AS callNumber, group_concat(DISTINCT branch) AS branches FROM holdings
              WHERE (shelf_key, record) ${SIGN[way.goes]} (:shelfKey, :record)
              GROUP BY shelf_key, record ORDER BY ${order(way, 'shelf_key', 'record')} LIMIT :atMost) s
       CROSS JOIN record_rows r ON r.id = s.record ORDER BY ${order(way, 's.shelf_key', 's.record')}`,
    { shelfKey, record, atMost: way.atMost },
  );

/** A copy by its barcode. */
export interface BarcodeEntry {
  readonly barcode: string;
  readonly copy: number;
  readonly record: number;
  readonly title: string;
  readonly branch: string;
  readonly status: string;
}
/** Barcodes, from one. */
export const barcodesFrom = (store: Store, barcode: string, way: Way): Promise<BarcodeEntry[]> =>
  store.rows<BarcodeEntry>(
    `SELECT c.barcode, c.id AS copy, c.record, r.title, c.branch, c.status
       FROM (SELECT id FROM copies WHERE barcode ${SIGN[way.goes]} :barcode ORDER BY ${order(way, 'barcode')} LIMIT :atMost) p
       CROSS JOIN copies c ON c.id = p.id CROSS JOIN record_rows r ON r.id = c.record ORDER BY ${order(way, 'c.barcode')}`,
    { barcode, atMost: way.atMost },
  );
