import type { Store } from '../store/store';
import type { IdQuery } from './queries.found';

/** A value of a facet: the term that finds it, its name, and how many of the records found have it. */
export interface FacetValue {
  readonly term: string;
  readonly name: string;
  readonly n: number;
}

/** Records that are counted (`f`). */
const of = ({ sql }: IdQuery): string => `(${sql}) f`;

/** How many of the records found are of each year, the most frequent first. */
export const countByYear = (store: Store, found: IdQuery, most: number): Promise<FacetValue[]> =>
  store.rows<FacetValue>(
    `SELECT r.year AS term, r.year AS name, COUNT(*) AS n FROM ${of(found)} CROSS JOIN record_rows r ON r.id = f.id
      WHERE r.year <> '' GROUP BY 1 ORDER BY 3 DESC, 1 DESC LIMIT :mostValues`,
    { ...found.params, mostValues: most },
  );

const SUBJECTS = ['topic', 'place', 'period'];
const NAMES = ['personal', 'corporate', 'meeting'];
const ofKinds = (kinds: readonly string[]): string =>
  kinds.map((k) => `(kind >= 'heading ${k} ' AND kind < 'heading ${k}!')`).join(' OR ');

/** How many of them carry each heading: of subjects, and of names. */
export async function countByHeading(
  store: Store,
  found: IdQuery,
  most: number,
): Promise<{ readonly subjects: FacetValue[]; readonly names: FacetValue[] }> {
  const top = (of: 'subjects' | 'names', kinds: readonly string[]) =>
    `SELECT * FROM (SELECT '${of}' AS list, kind, key, n FROM carried WHERE ${ofKinds(kinds)} ORDER BY n DESC, key LIMIT :mostValues)`;
  const rows = await store.rows<FacetValue & { list: 'subjects' | 'names' }>(
    `WITH carried AS MATERIALIZED (SELECT k.kind, k.key, COUNT(*) AS n FROM ${of(found)} CROSS JOIN record_keys k ON k.record = f.id
         AND k.kind >= 'heading ' AND k.kind < 'heading!' GROUP BY 1, 2),
       best AS MATERIALIZED (SELECT list, key, n, substr(kind, 9, instr(substr(kind, 9), ' ') - 1) AS kind,
         substr(kind, 9 + instr(substr(kind, 9), ' ')) AS vocabulary FROM (${top('subjects', SUBJECTS)} UNION ALL ${top('names', NAMES)}))
     SELECT b.list, CAST(h.id AS TEXT) AS term, h.text AS name, b.n FROM best b
       CROSS JOIN headings h ON h.vocabulary = b.vocabulary AND h.kind = b.kind AND h.key = b.key AND h.merged_into IS NULL AND h.disputed = 0
      ORDER BY b.n DESC, h.text`,
    { ...found.params, mostValues: most },
  );
  const listed = (list: 'subjects' | 'names') =>
    rows.filter((r) => r.list === list).map(({ term, name, n }) => ({ term, name, n }));
  return { subjects: listed('subjects'), names: listed('names') };
}

/** How many of them have holdings at each location, by its code. */
export const countByLocation = (store: Store, found: IdQuery, most: number): Promise<FacetValue[]> =>
  store.rows<FacetValue>(
    `SELECT h.location AS term, h.location AS name, COUNT(DISTINCT h.record) AS n FROM ${of(found)} CROSS JOIN holdings h ON h.record = f.id
      WHERE h.location <> '' GROUP BY 1 ORDER BY 3 DESC, 1 LIMIT :mostValues`,
    { ...found.params, mostValues: most },
  );

/** How many of them have copies of each supplier. */
export const countBySupplier = (store: Store, found: IdQuery, most: number): Promise<FacetValue[]> =>
  store.rows<FacetValue>(
    `SELECT c.supplier AS term, c.supplier AS name, COUNT(DISTINCT c.record) AS n FROM ${of(found)} CROSS JOIN copies c ON c.record = f.id
      WHERE c.supplier <> '' GROUP BY 1 ORDER BY 3 DESC, 1 LIMIT :mostValues`,
    { ...found.params, mostValues: most },
  );

/** How many of them came with each delivery. */
export const countByDelivery = (store: Store, found: IdQuery, most: number): Promise<FacetValue[]> =>
  store.rows<FacetValue>(
    `SELECT CAST(d.id AS TEXT) AS term, d.name, u.n FROM (
        SELECT i.delivery, COUNT(DISTINCT i.record) AS n FROM ${of(found)} CROSS JOIN incoming i ON i.record = f.id
         WHERE i.state = 'accepted' GROUP BY 1 ORDER BY 2 DESC LIMIT :mostValues) u JOIN deliveries d ON d.id = u.delivery AND d.gone = 0
      ORDER BY u.n DESC, d.id DESC`,
    { ...found.params, mostValues: most },
  );

/** How many of them each person changed last. */
export const countByPerson = (store: Store, found: IdQuery, most: number): Promise<FacetValue[]> =>
  store.rows<FacetValue>(
    `SELECT p.name AS term, p.name, COUNT(*) AS n FROM ${of(found)} CROSS JOIN daybook d
         ON d.id = (SELECT MAX(o.entry) FROM daybook_objects o WHERE o.kind = 'record' AND o.object = f.id)
       CROSS JOIN people p ON p.id = d.person GROUP BY 1 ORDER BY 3 DESC, 1 LIMIT :mostValues`,
    { ...found.params, mostValues: most },
  );
