import type { RecordOrder, RecordRow } from '@osier/contract';
import type { Ordering } from '@osier/core/find';
import type { Params } from '../store/database';
import type { Store } from '../store/store';
import { facetConditions, withWords, type IdQuery, type SearchFacets } from './queries.found';
import { wordRanking, type Ranking } from './ranking';

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

/**
 * Records by rank: the title itself first, then titles that begin so, then all words in the title, in names, in subjects, and last the
 * others; within a rank by title. Of more than `MOST_RANKED` the titles that begin so are covered, and of the others the first `MOST_RANKED`.
 */
export async function pageRanked(
  store: Store,
  found: IdQuery,
  ranking: Ranking,
  page: RankedPage,
): Promise<PlacedRow[]> {
  // What has the word in its title comes before all else; where that fills the page, nothing else is looked for. Several words
  // seldom stand all in the title.
  for (const upTo of ranking.isOneWord ? [0, 1] : []) {
    const rows = await placedIn(store, found, ranking, page, upTo);
    if (rows.length >= page.atMost) return rows;
  }
  return placedIn(store, found, ranking, page);
}

/** Records that have words in their title, in the same order; the first `atMost`. */
export async function bestTitles(
  store: Store,
  words: readonly string[],
  atMost: number,
): Promise<PlacedRow[]> {
  const ranking = wordRanking(words);
  const page = { facets: {}, after: null, atMost, isMany: true, isPlaced: false };
  const begin = await placedIn(store, withWords(words), ranking, page, 0);
  return begin.length >= atMost ? begin : placedIn(store, withWords(words), ranking, page, 1);
}

/** Which page of a search, and what narrows it. */
export interface OrderedPage {
  readonly facets: SearchFacets;
  readonly after: AfterRecord | null;
  readonly atMost: number;
  readonly isMany: boolean;
}
/** The same of a ranked search. */
export interface RankedPage extends OrderedPage {
  /** More than its words says what is searched: a pile, say. */
  readonly isPlaced: boolean;
}

/** The same by titles that begin so and the first `upTo` tiers, and no others; by all of them, and what is in none, where nothing is said. */
async function placedIn(
  store: Store,
  found: IdQuery,
  ranking: Ranking,
  page: RankedPage,
  upTo?: number,
): Promise<PlacedRow[]> {
  const { match, begins, exact } = ranking;
  const isByWords = match !== null && !page.isPlaced;
  const tiers = ranking.tiers.slice(0, upTo);
  const isNarrowed = Object.values(page.facets).some(Boolean);
  const facets = isNarrowed ? ` AND ${facetConditions(page.facets)}` : '';
  const rows = isNarrowed ? ' CROSS JOIN record_rows r ON r.id = w.rowid' : '';
  const isCut = isByWords && page.isMany && !isNarrowed && (tiers.length > 0 || upTo === undefined);
  const last = isCut ? await lastRanked(store, match) : null;
  const covered = last === null ? '' : ' AND w.rowid <= :lastRanked';
  const among = (id: string) => ` AND ${id} IN (SELECT id FROM (${found.sql}))`;
  const parts = [
    ...begins.map(
      (range, i) =>
        `SELECT r.id, 1 AS rank FROM record_rows r WHERE r.sort >= :from${i} AND r.sort < :to${i}${facets}${
          // Of many it is not asked again whether a title that begins with the words has them.
          isByWords && page.isMany && !range.isWider ? '' : among('r.id')
        }`,
    ),
    ...tiers.map(
      (_, i) =>
        `SELECT w.rowid AS id, ${i + 2} AS rank FROM record_words w${rows} WHERE w.record_words MATCH :tier${i}${covered}${facets}${
          isByWords ? '' : among('w.rowid')
        }`,
    ),
  ];
  const rest = tiers.length + 2;
  if (upTo === undefined)
    parts.push(
      isByWords
        ? `SELECT w.rowid AS id, ${rest} AS rank FROM record_words w${rows} WHERE w.record_words MATCH :others${covered}${facets}`
        : `SELECT w.id, ${rest} AS rank FROM (${found.sql}) w${rows.replace('w.rowid', 'w.id')} WHERE 1${facets}`,
    );
  if (parts.length === 0) return [];
  const [rank, sort, id] = page.after ?? [-1, '', 0];
  return store.rows<PlacedRow>(
    `WITH covered AS (SELECT id, rank FROM (${parts.join(' UNION ALL ')}) LIMIT :most),
      hits AS (SELECT id, MIN(rank) AS rank FROM covered GROUP BY id),
      found AS (SELECT r.id, r.sort, CASE WHEN r.sort IN (SELECT value FROM json_each(:exact)) THEN 0 ELSE h.rank END AS rank
        FROM hits h CROSS JOIN record_rows r ON r.id = h.id)
     SELECT id, rank, sort FROM found WHERE (rank, sort, id) > (:rank, :sort, :id) ORDER BY rank, sort, id LIMIT :atMost`,
    {
      ...found.params,
      ...Object.fromEntries(tiers.map((tier, i) => [`tier${i}`, tier])),
      ...Object.fromEntries(
        begins.flatMap(({ from, to }, i) => [
          [`from${i}`, from],
          [`to${i}`, to],
        ]),
      ),
      ...{ ...page.facets, rank, sort, id, atMost: page.atMost, lastRanked: last },
      // A record may come at every rank; where there are few, or the range of them is cut, all of them are covered.
      ...{ others: match, most: page.isMany && !isCut ? MOST_RANKED : -1 },
      exact: JSON.stringify(exact),
    },
  );
}

/** The number of the last record that is ranked of more than can be; null where there are not so many. */
const lastRanked = async (store: Store, match: string): Promise<number | null> =>
  (
    await store.row<{ id: number }>(
      'SELECT rowid AS id FROM record_words WHERE record_words MATCH :match LIMIT 1 OFFSET :skip',
      { match, skip: MOST_RANKED - 1 },
    )
  )?.id ?? null;

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
}
const ORDERS: Readonly<Record<RecordOrder, Order>> = {
  title: { text: 'r.sort', number: '0' },
  name: { text: 'r.filing_name', number: '0' },
  year: { text: 'r.year', number: '0' },
  added: { text: "''", number: '0' },
  // A title stands where the first of its call numbers does; one that has none comes last.
  callnumber: {
    text: `ifnull((SELECT MIN(h.shelf_key) FROM holdings h WHERE h.record = r.id), '${LATEST}')`,
    number: '0',
  },
  changed: {
    text: "''",
    number:
      "ifnull((SELECT MAX(o.entry) FROM daybook_objects o WHERE o.kind = 'record' AND o.object = r.id), 0)",
  },
};

/** An order of records (`r`), in SQL. */
export function orderedBy({ by, descends }: Ordering): string {
  const { text, number } = ORDERS[by];
  const columns = [number, text, 'r.id'].filter((c) => c !== '0' && c !== "''");
  return columns.map((c) => `${c} ${descends ? 'DESC' : 'ASC'}`).join(', ');
}

/** Records in an order. A query that gives few is sorted; one that gives many, or all, is walked along the order. */
export async function pageInOrder(
  store: Store,
  found: IdQuery,
  { by, descends }: Ordering,
  page: OrderedPage,
): Promise<PlacedRow[]> {
  const begin: AfterRecord = descends
    ? [Number.MAX_SAFE_INTEGER, LATEST + LATEST, Number.MAX_SAFE_INTEGER]
    : [-1, '', 0];
  const [number, text, id] = page.after ?? begin;
  const direction = descends ? 'DESC' : 'ASC';
  const than = descends ? '<' : '>';
  const isAll = found.all || page.isMany;
  const among =
    found.all || !page.isMany ? '' : ` AND ${found.where ?? `r.id IN (SELECT id FROM (${found.sql}))`}`;
  const conditions = `${facetConditions(page.facets)}${among}`;
  const params = { ...found.params, ...page.facets, number, text, id, atMost: page.atMost };
  const walk = isAll ? WALKS[by] : undefined;
  if (walk) return walked(store, walk(than, direction, conditions), params, page.atMost);
  const of = ORDERS[by];
  const from = isAll ? 'record_rows r' : `(${found.sql}) f CROSS JOIN record_rows r ON r.id = f.id`;
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
