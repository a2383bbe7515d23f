import type { Store } from '../store/store';
import { facetConditions, type IdQuery, type SearchFacets } from './queries.found';

/** So many records are ranked and counted; of more it is only told that there are. */
export const MOST_RANKED = 10_000;

/** What a search finds, no more of it than is ranked and counted. */
export interface Hits {
  /** Their numbers as JSON. */
  readonly ids: string;
  readonly n: number;
  /** There are more of them. */
  readonly isMany: boolean;
  /** How many of the records up to the last of them they are, from 0 to 1. */
  readonly density: number;
}

/** Hits that are good until something is written, by what was asked: rows and counts of one search are asked for beside one another. */
interface Known {
  at: number;
  readonly hits: Map<string, Promise<Hits>>;
}
const known = new WeakMap<Store, Known>();
const KEPT = 8;

/** The first records that a query finds, narrowed by facets. */
export function hitsOf(
  store: Store,
  found: IdQuery,
  facets: SearchFacets = {},
  most = MOST_RANKED,
): Promise<Hits> {
  const at = store.writes();
  const mine = known.get(store) ?? { at, hits: new Map<string, Promise<Hits>>() };
  known.set(store, mine);
  if (mine.at !== at) mine.hits.clear();
  mine.at = at;
  const asked = JSON.stringify([found.sql, found.whole, found.params, facets, most]);
  const hits = mine.hits.get(asked) ?? looked(store, found, facets, most);
  mine.hits.delete(asked);
  mine.hits.set(asked, hits);
  // What failed is asked for again.
  hits.catch(() => mine.hits.delete(asked));
  for (const old of [...mine.hits.keys()].slice(0, Math.max(0, mine.hits.size - KEPT))) mine.hits.delete(old);
  return hits;
}

async function looked(store: Store, found: IdQuery, facets: SearchFacets, most: number): Promise<Hits> {
  // Where there are many already that have the words as they are, what they may be the beginning of is not looked for.
  if (found.whole) {
    const whole = await firstOf(store, { ...found, sql: found.whole }, facets, most);
    if (whole.isMany) return whole;
  }
  return firstOf(store, found, facets, most);
}

async function firstOf(store: Store, found: IdQuery, facets: SearchFacets, most: number): Promise<Hits> {
  const narrowed = Object.values(facets).some(Boolean)
    ? ` CROSS JOIN record_rows r ON r.id = f.id WHERE ${facetConditions(facets)}`
    : '';
  const row = await store.row<{ ids: string; n: number; last: number | null }>(
    `SELECT json_group_array(id) AS ids, COUNT(*) AS n, MAX(id) AS last FROM (SELECT f.id FROM (${found.sql}) f${narrowed} LIMIT :most + 1)`,
    { ...found.params, ...facets, most },
  );
  const { ids, n, last } = row ?? { ids: '[]', n: 0, last: null };
  const density = last ? Math.min(1, n / last) : 0;
  if (n <= most) return { ids, n, isMany: false, density };
  return { ids: `${ids.slice(0, ids.lastIndexOf(','))}]`, n: most, isMany: true, density };
}

/** Those alone as a query. */
export const amongHits = ({ ids }: Hits): IdQuery => ({
  sql: 'SELECT value AS id FROM json_each(:hits)',
  params: { hits: ids },
});
