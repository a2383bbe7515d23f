import type { RecordOrder, RecordRow } from '@osier/contract';
import { WORD_COLUMNS } from '../store/index-records';
import type { Store } from '../store/store';
import { facetConditions, term, type IdQuery, type SearchFacets } from './queries.found';

/** Where a page of records begins: behind a rank, a sort key and a number. */
export type AfterRecord = readonly [rank: number, sort: string, id: number];
/** A row of a page with its place. */
export interface PlacedRow {
  readonly id: number;
  readonly rank: number;
  readonly sort: string;
}

/** So many records are ranked and counted; of more it is only told that there are. */
export const MOST_RANKED = 10_000;

/** How many records a query gives, counted to one more than `most`. */
export async function countAtMost(store: Store, found: IdQuery, most: number): Promise<number> {
  const row = await store.row<{ n: number }>(
    `SELECT COUNT(*) AS n FROM (SELECT 1 FROM (${found.sql}) LIMIT :most + 1)`,
    { ...found.params, most },
  );
  return row?.n ?? 0;
}

/** Words of a search, folded, as the full-text index is asked for them. */
export interface RankedWords {
  readonly words: readonly string[];
  /** The title that the words are, without an initial article. */
  readonly exact: readonly string[];
  /** Only what lies on a pile, or came with a delivery, is searched. */
  readonly isPlaced: boolean;
}

/** Ranks of what has the words in its title. */
const IN_TITLE = 2;

/**
 * Records by rank: the title itself first, then titles that begin so, then all words in the title, in names, in subjects, in the
 * rest, and last those that have the words in several places; within a rank by title. The first `MOST_RANKED` are covered.
 */
export async function pageRanked(
  store: Store,
  found: IdQuery,
  words: RankedWords,
  page: RankedPage,
): Promise<PlacedRow[]> {
  // What has the word in its title comes before all else; where that fills the page, nothing else is looked for. Several words
  // seldom stand all in the title.
  const inTitles = words.words.length === 1 ? await placedIn(store, found, words, page, IN_TITLE) : [];
  return inTitles.length >= page.atMost ? inTitles : placedIn(store, found, words, page);
}

/** Records that have words in their title, in the same order; the first `atMost`. */
export const bestTitles = (
  store: Store,
  found: IdQuery,
  words: RankedWords,
  atMost: number,
): Promise<PlacedRow[]> =>
  placedIn(store, found, words, { facets: {}, after: null, atMost, isMany: true }, IN_TITLE);

/** Which page of a ranked search, and what narrows it. */
export interface RankedPage {
  readonly facets: SearchFacets;
  readonly after: AfterRecord | null;
  readonly atMost: number;
  readonly isMany: boolean;
}

/** The same by the first `upTo` ranks, all of them where nothing is said. */
function placedIn(
  store: Store,
  found: IdQuery,
  { words, exact, isPlaced }: RankedWords,
  page: RankedPage,
  upTo?: number,
): Promise<PlacedRow[]> {
  const all = words.map(term).join(' AND ');
  const tiers = [
    `title : ^ ${words.map((w) => `"${w}"`).join(' + ')} *`,
    ...WORD_COLUMNS.map((column) => `${column} : (${all})`),
    all,
  ].slice(0, upTo);
  const isNarrowed = Object.values(page.facets).some(Boolean);
  const among = [
    ...(isNarrowed ? [facetConditions(page.facets)] : []),
    ...(isPlaced ? [`w.rowid IN (SELECT id FROM (${found.sql}))`] : []),
  ].map((c) => ` AND ${c}`);
  const from = isNarrowed ? 'record_words w CROSS JOIN record_rows r ON r.id = w.rowid' : 'record_words w';
  const hits = tiers.map(
    (_, i) =>
      `SELECT w.rowid AS id, ${i + 1} AS rank FROM ${from} WHERE w.record_words MATCH :tier${i}${among.join('')}`,
  );
  const [rank, sort, id] = page.after ?? [-1, '', 0];
  return store.rows<PlacedRow>(
    `WITH covered AS (SELECT id, rank FROM (${hits.join(' UNION ALL ')}) LIMIT :most),
      hits AS (SELECT id, MIN(rank) AS rank FROM covered GROUP BY id),
      found AS (SELECT r.id, r.sort, CASE WHEN r.sort IN (SELECT value FROM json_each(:exact)) THEN 0 ELSE h.rank END AS rank
        FROM hits h CROSS JOIN record_rows r ON r.id = h.id)
     SELECT id, rank, sort FROM found WHERE (rank, sort, id) > (:rank, :sort, :id) ORDER BY rank, sort, id LIMIT :atMost`,
    {
      ...Object.fromEntries(tiers.map((tier, i) => [`tier${i}`, tier])),
      ...{ ...(isPlaced && found.params), ...page.facets, rank, sort, id, atMost: page.atMost },
      // A record may come at every rank; where there are few, all of them are covered.
      most: page.isMany ? MOST_RANKED : -1,
      exact: JSON.stringify(exact),
    },
  );
}

/** By which column of `record_rows` a list is sorted, and whether the greatest comes first. */
const ORDERS: Readonly<Record<RecordOrder, { readonly by: string; readonly descends: boolean }>> = {
  title: { by: 'r.sort', descends: false },
  name: { by: 'r.filing_name', descends: false },
  year: { by: 'r.year', descends: true },
  added: { by: "''", descends: true },
};
/** Behind every year. */
const LATEST = '\u{10ffff}';

/** Records in an order. A query that gives few is sorted; one that gives many, or all, is walked along the order. */
export function pageInOrder(
  store: Store,
  found: IdQuery,
  order: RecordOrder,
  page: {
    readonly facets: SearchFacets;
    readonly after: AfterRecord | null;
    readonly atMost: number;
    readonly isMany: boolean;
  },
): Promise<PlacedRow[]> {
  const { by, descends } = ORDERS[order];
  const begin: AfterRecord = descends ? [0, LATEST, Number.MAX_SAFE_INTEGER] : [0, '', 0];
  const [, sort, id] = page.after ?? begin;
  const behind = order === 'added' ? 'r.id < :id' : `(${by}, r.id) ${descends ? '<' : '>'} (:sort, :id)`;
  const direction = descends ? 'DESC' : 'ASC';
  const from =
    found.all || page.isMany ? 'record_rows r' : `(${found.sql}) f CROSS JOIN record_rows r ON r.id = f.id`;
  const among = page.isMany && !found.all ? ` AND r.id IN (${found.sql})` : '';
  const sorted = order === 'added' ? `r.id ${direction}` : `${by} ${direction}, r.id ${direction}`;
  return store.rows<PlacedRow>(
    `SELECT r.id, 0 AS rank, ${by} AS sort FROM ${from}
      WHERE ${behind} AND ${facetConditions(page.facets)}${among} ORDER BY ${sorted} LIMIT :atMost`,
    { ...found.params, ...page.facets, sort, id, atMost: page.atMost },
  );
}

/** What a list shows of some records, in their order. */
export async function rowsOf(store: Store, ids: readonly number[]): Promise<RecordRow[]> {
  const rows = await store.rows<RecordRow>(
    `SELECT r.id, r.title, r.author, r.year, r.isbn, r.publisher, r.edition, r.language, r.material,
        (SELECT COUNT(*) FROM copies c WHERE c.record = r.id) AS copies,
        COALESCE((SELECT call_number FROM holdings h WHERE h.record = r.id ORDER BY h.id LIMIT 1), '') AS callNumber
      FROM json_each(:ids) w CROSS JOIN record_rows r ON r.id = w.value`,
    { ids: JSON.stringify(ids) },
  );
  const by = new Map(rows.map((r) => [r.id, r]));
  return ids.flatMap((id) => by.get(id) ?? []);
}
