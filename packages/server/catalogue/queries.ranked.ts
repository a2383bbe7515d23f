import { withoutArticle } from '@osier/core/find';
import type { Store } from '../store/store';
import { facetConditions, type IdQuery, type SearchFacets } from './queries.found';
import type { Hits } from './queries.hits';
import type { AfterRecord, PlacedRow } from './queries.pages';
import type { Ranking, TitleRange } from './ranking';

/** Which page of a ranked search. */
export interface RankedPage {
  readonly facets: SearchFacets;
  readonly after: AfterRecord | null;
  readonly atMost: number;
}

/**
 * Records by rank: the title itself first, then titles that begin so, then all words in the title, in names, in subjects, and last the
 * others; within a rank by title. Of very many the hits and all titles that begin so are covered; whether words are in titles and names is
 * then told by the title proper and the first name.
 */
export async function pageRanked(
  store: Store,
  found: IdQuery,
  hits: Hits,
  ranking: Ranking,
  page: RankedPage,
): Promise<PlacedRow[]> {
  if (!hits.isMany) return placedBy(store, page, ofAll(hits, ranking));
  if (!found.matches) return placedBy(store, page, ofVeryMany(hits, ranking, ofTitles(ranking)));
  const titles = surelyOfTitles(found, found.matches, ranking);
  const first = await placedBy(store, page, beginningSo(found, found.matches, ranking, page));
  if (first.length >= page.atMost) return first;
  const others = await placedBy(
    store,
    { ...page, atMost: page.atMost - first.length },
    ofVeryMany(hits, ranking, titles, BEGINS),
  );
  return [...first, ...others];
}

/** The rank of titles that begin so. */
const BEGINS = 1;
/** Records with their ranks, as a query. */
interface Placed {
  readonly sql: string;
  readonly params: Readonly<Record<string, unknown>>;
}

/** A page of them. */
function placedBy(store: Store, page: RankedPage, { sql, params }: Placed): Promise<PlacedRow[]> {
  const [rank, sort, id] = page.after ?? [-1, '', 0];
  return store.rows<PlacedRow>(
    `SELECT id, rank, sort FROM (${sql})${page.after ? ' WHERE (rank, sort, id) > (:rank, :sort, :id)' : ''} ORDER BY rank, sort, id LIMIT :atMost`,
    { ...params, ...page.facets, rank, sort, id, atMost: page.atMost },
  );
}

const HITS = 'SELECT value AS id FROM json_each(:hits)';

/** Ranks as the branches of a case, with their values. */
interface Ranks {
  readonly ranks: string;
  readonly params: Record<string, unknown>;
}

/** The ranks of titles that are the words, or begin so, among records that are found. */
function ofTitles(ranking: Ranking): Ranks {
  const params: Record<string, unknown> = { exact: JSON.stringify(ranking.exact) };
  const begins = ranking.begins.map((range, i) => inRange(range, i, params));
  return { ranks: `WHEN r.sort IN (SELECT value FROM json_each(:exact)) THEN 0${begins.join('')}`, params };
}

function inRange({ from, to }: TitleRange, i: number, params: Record<string, unknown>): string {
  params[`from${i}`] = from;
  params[`to${i}`] = to;
  return ` WHEN r.sort >= :from${i} AND r.sort < :to${i} THEN ${BEGINS}`;
}

/** The same of titles of which it is sure that they have the words: what `beginningSo` finds, and no others. */
function surelyOfTitles(found: IdQuery, matches: string, ranking: Ranking): Ranks {
  const params: Record<string, unknown> = { ...found.params };
  const exact = ranking.exact.map((_, i) => ` WHEN ${isExact(i, ranking, matches, params)} THEN 0`);
  const begins = ranking.begins.map((range, i) => (range.isWider ? '' : inRange(range, i, params)));
  return { ranks: [...exact, ...begins].join(''), params };
}

/** Whether a title is the words; without its article it may lack a word that was asked for, which is looked up. */
function isExact(i: number, { exact }: Ranking, matches: string, params: Record<string, unknown>): string {
  params[`exact${i}`] = exact[i];
  return `r.sort = :exact${i}${i === 0 ? '' : ` AND ${matches}`}`;
}

/** Each of some by the best of the tiers that it is in. */
function ofAll(hits: Hits, ranking: Ranking): Placed {
  const { ranks, params } = ofTitles(ranking);
  const parts = ranking.tiers.map((tier, i) => {
    params[`tier${i}`] = tier;
    return `SELECT rowid AS id, ${i + 2} AS rank FROM record_words WHERE record_words MATCH :tier${i}`;
  });
  const last = `SELECT id, ${ranking.tiers.length + 2} AS rank FROM (${HITS})`;
  // A tier is read once from its beginning to its end, and not begun anew for each of the hits (`+id`).
  const tiers = `SELECT id, MIN(rank) AS rank FROM (${[last, ...parts].join(' UNION ALL ')}) WHERE +id IN (${HITS}) GROUP BY id`;
  return {
    sql: `SELECT r.id, r.sort, CASE ${ranks} ELSE h.rank END AS rank FROM (${tiers}) h CROSS JOIN record_rows r ON r.id = h.id`,
    params: { ...params, hits: hits.ids },
  };
}

/** All titles that are the words, or begin so, whether or not they are among the hits. */
function beginningSo(found: IdQuery, matches: string, ranking: Ranking, page: RankedPage): Placed {
  const { params } = surelyOfTitles(found, matches, ranking);
  const narrowed = facetConditions(page.facets);
  const rows = 'SELECT r.id, r.sort FROM record_rows r INDEXED BY record_rows_sort WHERE';
  const place = page.after ? ` AND (${BEGINS}, r.sort, r.id) > (:rank, :sort, :id)` : '';
  const exact = ranking.exact.map((_, i) => isExact(i, ranking, matches, params));
  const others = exact.map((is) => ` AND NOT (${is})`).join('');
  const parts = [
    ...exact.map((is) => `SELECT id, 0 AS rank, sort FROM (${rows} ${is} AND ${narrowed})`),
    ...ranking.begins.flatMap(({ isWider }, i) =>
      isWider
        ? []
        : `SELECT id, ${BEGINS} AS rank, sort FROM (${rows} r.sort >= :from${i} AND r.sort < :to${i}${others}
             AND ${narrowed}${place} ORDER BY r.sort, r.id LIMIT :atMost)`,
    ),
  ];
  return {
    sql: parts.length ? parts.join(' UNION ALL ') : "SELECT 0 AS id, 0 AS rank, '' AS sort WHERE 0",
    params,
  };
}

/**
 * Those of very many that are ranked, behind a rank, by what rows of records say: nothing is asked of the index of words, which would have to
 * read all that is under a frequent word.
 */
function ofVeryMany(hits: Hits, ranking: Ranking, { ranks, params: given }: Ranks, behind = -1): Placed {
  const params = { ...given };
  const words = ranking.words.map((w, i) => {
    params[`word${i}`] = ` ${w.text}${w.isBeginning ? '' : ' '}`;
    return (column: string) => `instr(' ' || ${column} || ' ', :word${i}) > 0`;
  });
  const has = (column: string, of: typeof words) => of.map((w) => w(column)).join(' AND ');
  // Titles are filed without an initial article.
  const title = words.slice(withoutArticle(ranking.words.map((w) => w.text)) ? 1 : 0);
  const others = words.length
    ? ` WHEN ${has('r.sort', title)} THEN 2 WHEN ${has('r.filing_name', words)} THEN 3`
    : '';
  return {
    sql: `SELECT id, rank, sort FROM (SELECT r.id, r.sort, CASE ${ranks}${others} WHEN 1 THEN 4 END AS rank
      FROM json_each(:hits) h CROSS JOIN record_rows r ON r.id = h.value) WHERE rank > ${behind}`,
    params: { ...params, hits: hits.ids },
  };
}
