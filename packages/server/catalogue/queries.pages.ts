import type { RecordOrder, RecordRow } from '@osier/contract';
import type { Ordering } from '@osier/core/find';
import type { Params } from '../store/database';
import type { Store } from '../store/store';
import { withWords } from './queries.find';
import { facetConditions, type IdQuery, type SearchFacets } from './queries.found';
import { amongHits, hitsOf, type Hits } from './queries.hits';
import { pageRanked } from './queries.ranked';

/** Where a page of records begins: behind a rank, a sort key and a number. */
export type AfterRecord = readonly [rank: number, sort: string, id: number];
/** A row of a page with its place. */
export interface PlacedRow {
  readonly id: number;
  readonly rank: number;
  readonly sort: string;
}

/** What a title is found by: more words would tell no more. */
const MOST_LOOKED = 12;

/** Records that have words in their title, by rank; the first `atMost`. */
export async function bestTitles(
  store: Store,
  words: readonly string[],
  atMost: number,
): Promise<PlacedRow[]> {
  const found = withWords(words.slice(0, MOST_LOOKED));
  if (words.length === 0 || !found.ranking) return [];
  const page = { facets: {}, after: null, atMost };
  const rows = await pageRanked(store, found, await hitsOf(store, found), found.ranking, page);
  return rows.filter((r) => r.rank <= IN_TITLE);
}
/** The last rank of records that have the words in their title. */
const IN_TITLE = 2;

/** Which page of a search, and what narrows it. */
export interface OrderedPage {
  readonly facets: SearchFacets;
  readonly after: AfterRecord | null;
  readonly atMost: number;
}

/** How each order begins where nothing else is said. */
export const firstOrdering = (by: RecordOrder): Ordering => ({
  by,
  descends: by === 'year' || by === 'added' || by === 'changed',
});

/** Behind every text. */
const LATEST = '\u{10ffff}';
/** Where an order is kept: a text and a number that count before the number of the record. */
interface Order {
  readonly text: string;
  readonly number: string;
  /** The index that stands in it; null where the records themselves do. */
  readonly index: string | null;
}
const ORDERS: Readonly<Record<RecordOrder, Order>> = {
  title: { text: 'r.sort', number: '0', index: 'record_rows_sort' },
  name: { text: 'r.filing_name', number: '0', index: 'record_rows_name' },
  year: { text: 'r.year', number: '0', index: 'record_rows_year' },
  added: { text: "''", number: '0', index: null },
  // A title stands where the first of its call numbers does; one that has none comes last.
  callnumber: {
    text: `ifnull((SELECT MIN(h.shelf_key) FROM holdings h WHERE h.record = r.id), '${LATEST}')`,
    number: '0',
    index: null,
  },
  changed: {
    text: "''",
    number:
      "ifnull((SELECT MAX(o.entry) FROM daybook_objects o WHERE o.kind = 'record' AND o.object = r.id), 0)",
    index: null,
  },
};

/** An order of records (`r`), in SQL. */
export function orderedBy({ by, descends }: Ordering): string {
  const { text, number } = ORDERS[by];
  const columns = [number, text, 'r.id'].filter((c) => c !== '0' && c !== "''");
  return columns.map((c) => `${c} ${descends ? 'DESC' : 'ASC'}`).join(', ');
}

/** Of records of which fewer are sought, those sought are laid out first. */
const DENSE = 0.2;

/** Records in an order. A query that gives few is sorted; one that gives many, or all (`hits` null), is walked along the order. */
export async function pageInOrder(
  store: Store,
  found: IdQuery,
  hits: Hits | null,
  { by, descends }: Ordering,
  page: OrderedPage,
): Promise<PlacedRow[]> {
  const begin: AfterRecord = descends
    ? [Number.MAX_SAFE_INTEGER, LATEST + LATEST, Number.MAX_SAFE_INTEGER]
    : [-1, '', 0];
  const [number, text, id] = page.after ?? begin;
  const direction = descends ? 'DESC' : 'ASC';
  const than = descends ? '<' : '>';
  const few = hits && !hits.isMany ? amongHits(hits) : null;
  const sought =
    few || found.all
      ? '1'
      : ((hits && hits.density >= DENSE ? found.whereDense : undefined) ??
        found.where ??
        `+r.id IN (SELECT id FROM (${found.sql}))`);
  // Few were narrowed already.
  const conditions = few ? '1' : `${facetConditions(page.facets)} AND ${sought}`;
  const params = { ...found.params, ...few?.params, ...page.facets, number, text, id, atMost: page.atMost };
  const walk = few ? undefined : WALKS[by];
  if (walk) return walked(store, walk(than, direction, conditions), params, page.atMost);
  const of = ORDERS[by];
  const from = few
    ? `(${few.sql}) f CROSS JOIN record_rows r ON r.id = f.id`
    : `record_rows r ${of.index ? `INDEXED BY ${of.index}` : 'NOT INDEXED'}`;
  const columns = [of.number, of.text, 'r.id'].filter((c) => c !== '0' && c !== "''");
  const values = [of.number !== '0' && ':number', of.text !== "''" && ':text', ':id'].filter(Boolean);
  return store.rows<PlacedRow>(
    `SELECT r.id, ${of.number} AS rank, ${of.text} AS sort FROM ${from}
      WHERE (${columns.join(', ')}) ${than} (${values.join(', ')}) AND ${conditions}
      ORDER BY ${columns.map((c) => `${c} ${direction}`).join(', ')} LIMIT :atMost`,
    params,
  );
}

/** The rows of the parts of a walk, one part after the other, until the page is full. */
async function walked(
  store: Store,
  parts: readonly string[],
  params: Params,
  atMost: number,
): Promise<PlacedRow[]> {
  const rows: PlacedRow[] = [];
  for (const part of parts)
    if (rows.length < atMost)
      rows.push(...(await store.rows<PlacedRow>(part, { ...params, atMost: atMost - rows.length })));
  return rows;
}

type Walk = (than: '<' | '>', direction: 'ASC' | 'DESC', conditions: string) => readonly string[];
/** Orders that are kept beside the records, walked along where they are. */
const WALKS: Partial<Record<RecordOrder, Walk>> = {
  callnumber: (than, direction, conditions) => {
    const shelved = `SELECT r.id, 0 AS rank, w.shelf_key AS sort FROM holdings w CROSS JOIN record_rows r ON r.id = w.record
      WHERE (w.shelf_key, w.record) ${than} (:text, :id) AND ${conditions}
        AND NOT EXISTS (SELECT 1 FROM holdings o WHERE o.record = w.record AND (o.shelf_key, o.id) < (w.shelf_key, w.id))
      ORDER BY w.shelf_key ${direction}, w.record ${direction} LIMIT :atMost`;
    const others = `SELECT r.id, 0 AS rank, '${LATEST}' AS sort FROM record_rows r
      WHERE ('${LATEST}', r.id) ${than} (:text, :id) AND ${conditions} AND NOT EXISTS (SELECT 1 FROM holdings o WHERE o.record = r.id)
      ORDER BY r.id ${direction} LIMIT :atMost`;
    return direction === 'ASC' ? [shelved, others] : [others, shelved];
  },
  changed: (than, direction, conditions) => [
    `SELECT r.id, w.entry AS rank, '' AS sort FROM daybook_objects w CROSS JOIN record_rows r ON r.id = w.object
      WHERE w.kind = 'record' AND (w.entry, w.object) ${than} (:number, :id) AND ${conditions}
        AND NOT EXISTS (SELECT 1 FROM daybook_objects o WHERE o.kind = 'record' AND o.object = w.object AND o.entry > w.entry)
      ORDER BY w.entry ${direction}, w.object ${direction} LIMIT :atMost`,
  ],
};

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
