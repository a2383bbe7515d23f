import type { SearchBody } from '@osier/contract';
import { HEADING_KEY_KIND, LEADS_TO, pointsOf } from '../store/index-records';
import type { Store } from '../store/store';
import type { Ranking } from './ranking';

/** What narrows a search beside its words. */
export type SearchFacets = Pick<SearchBody, 'language' | 'branch' | 'material' | 'finding'>;

/** SQL that gives the `id`s of records, with its parameters. */
export interface IdQuery {
  readonly sql: string;
  readonly params: Readonly<Record<string, unknown>>;
  /** It gives every record. */
  readonly all?: boolean;
  /** The same as a condition on a record (`r`) of a walk, with the same parameters, where that is known. */
  readonly where?: string;
  /** The same again, looked up for each record: quick where most of those that are walked hold it. */
  readonly whereDense?: string;
  /** Of words that may go on, those that have them as they are: a query, and a condition on a record (`r`). */
  readonly whole?: string;
  readonly matches?: string;
  /** How what it finds is ranked. */
  readonly ranking?: Ranking;
}

/** Records with an ISBN (ISBN-13). */
export const withIsbn = (key: string): IdQuery => ({
  sql: "SELECT record AS id FROM record_keys WHERE kind = 'isbn' AND key = :key",
  params: { key },
});

/** The record with a number. */
export const withNumber = (record: number): IdQuery => ({
  sql: `WITH RECURSIVE lead (id) AS (SELECT :record UNION SELECT l.into_record FROM lead JOIN record_leads l ON l.id = lead.id)
    SELECT r.id FROM lead JOIN records r ON r.id = lead.id`,
  params: { record },
});

/** Records that carry a heading, or the one that it was merged into. */
export const underHeading = (heading: number): IdQuery => ({
  sql: `SELECT k.record AS id FROM headings h JOIN record_keys k ON k.kind = ${HEADING_KEY_KIND} AND k.key = h.key WHERE h.id = (${LEADS_TO})`,
  params: { heading },
});

/** The record of the copy with a barcode. */
export const withBarcode = (code: string): IdQuery => ({
  sql: 'SELECT DISTINCT h.record AS id FROM copies c JOIN holdings h ON h.id = c.holding WHERE c.barcode = :code',
  params: { code },
});

/** Records with a call number that begins so. */
export const underCallNumber = (from: string): IdQuery => ({
  sql: 'SELECT DISTINCT record AS id FROM holdings WHERE call_number >= :from AND call_number < :to',
  params: { from, to: `${from}\uffff` },
});

/** Records by their numbers. */
export const amongRecords = (ids: readonly number[]): IdQuery => ({
  sql: 'SELECT value AS id FROM json_each(:having)',
  params: { having: JSON.stringify(ids) },
});

/** The same, chosen by hand, so that both narrow one search. */
export const chosenRecords = (ids: readonly number[]): IdQuery => ({
  sql: 'SELECT value AS id FROM json_each(:chosen)',
  params: { chosen: JSON.stringify(ids) },
});

/** Records with a copy of a status, of a type, or of both. */
export const withCopies = (status: string | undefined, type: string | undefined): IdQuery => ({
  sql: `SELECT DISTINCT record AS id FROM copies WHERE ${[
    ...(status ? ['status = :copyStatus'] : []),
    ...(type ? ['type = :copyType'] : []),
  ].join(' AND ')}`,
  params: { ...(status && { copyStatus: status }), ...(type && { copyType: type }) },
});

/** Records that lie on a pile, or whose copies do; those that are in the catalogue now. */
export const onPile = (pile: number, of: 'record' | 'copy'): IdQuery => ({
  sql:
    of === 'record'
      ? "SELECT DISTINCT r.id FROM piled p JOIN record_rows r ON r.id = p.object WHERE p.pile = :pile AND p.kind = 'record'"
      : `SELECT DISTINCT h.record AS id FROM piled p JOIN copies c ON c.id = p.object JOIN holdings h ON h.id = c.holding
         WHERE p.pile = :pile AND p.kind = 'copy'`,
  params: { pile },
});

/** Records that the public does not see. */
export const suppressedRecords: IdQuery = {
  sql: 'SELECT r.id FROM suppressed s JOIN record_rows r ON r.id = s.id',
  params: {},
};

/** Records that were accepted from a delivery, and are in the catalogue now. */
export const acceptedFrom = (delivery: number): IdQuery => ({
  sql: "SELECT DISTINCT r.id FROM incoming i JOIN record_rows r ON r.id = i.record WHERE i.delivery = :delivery AND i.state = 'accepted'",
  params: { delivery },
});

/** The records that two queries both give. */
export const inBoth = (a: IdQuery, b: IdQuery): IdQuery => ({
  sql: a.all ? b.sql : `SELECT id FROM (${a.sql}) INTERSECT SELECT id FROM (${b.sql})`,
  params: { ...a.params, ...b.params },
});

/** The records (`r`) of a search. */
const countedOf = ({ sql, all }: IdQuery): string =>
  all ? 'record_rows r' : `(${sql}) f CROSS JOIN record_rows r ON r.id = f.id`;

/** Facets that the registry has, by where their values are kept. */
const OF_RECORD = pointsOf('record').columns.filter((p) => p.facet);
const OF_HOLDING = pointsOf('holding').columns.filter((p) => p.facet);

/** The conditions of facets on records (`r`), each with a value named like it. */
export function facetConditions(facets: SearchFacets): string {
  const asked = new Map<string, string | undefined>(Object.entries(facets));
  const among = [...OF_RECORD, ...OF_HOLDING].filter((p) => asked.get(p.name));
  const conditions = among.map(({ name }) =>
    OF_RECORD.some((p) => p.name === name)
      ? `r.${name} = :${name}`
      : `EXISTS (SELECT 1 FROM holdings h WHERE h.record = r.id AND h.${name} = :${name})`,
  );
  if (facets.finding)
    conditions.push('EXISTS (SELECT 1 FROM record_findings f WHERE f.record = r.id AND f.rule = :finding)');
  return ['1', ...conditions].join(' AND ');
}

/** The numbers of records behind one, in the order of their numbers. */
export async function idsBehind(
  store: Store,
  found: IdQuery,
  facets: SearchFacets,
  after: number,
  atMost: number,
): Promise<number[]> {
  const rows = await store.rows<{ id: number }>(
    `SELECT r.id FROM ${countedOf(found)} WHERE ${facetConditions(facets)} AND r.id > :after ORDER BY r.id LIMIT :atMost`,
    { ...found.params, ...facets, after, atMost },
  );
  return rows.map((r) => r.id);
}

/** How many records a search finds, counting no further than `most`. */
export async function countUpTo(
  store: Store,
  found: IdQuery,
  facets: SearchFacets,
  most: number,
): Promise<{ total: number; isMore: boolean }> {
  const row = await store.row<{ n: number }>(
    `SELECT COUNT(*) AS n FROM (SELECT 1 FROM ${countedOf(found)} WHERE ${facetConditions(facets)} LIMIT :most + 1)`,
    { ...found.params, ...facets, most },
  );
  const n = row?.n ?? 0;
  return { total: Math.min(n, most), isMore: n > most };
}

/** How many of the records found are of each language and material. */
export const countByKind = (
  store: Store,
  found: IdQuery,
): Promise<{ language: string; material: string; n: number }[]> =>
  store.rows<{ language: string; material: string; n: number }>(
    `SELECT r.language, r.material, COUNT(*) AS n FROM ${countedOf(found)} GROUP BY 1, 2`,
    { ...found.params },
  );

/** In how many of the records found each check has found something. */
export const countByFinding = (store: Store, found: IdQuery): Promise<{ value: string; n: number }[]> =>
  store.rows<{ value: string; n: number }>(
    `SELECT x.rule AS value, COUNT(*) AS n FROM (${found.sql}) f CROSS JOIN record_findings x ON x.record = f.id GROUP BY 1 ORDER BY 2 DESC`,
    { ...found.params },
  );

/** How many of the records found have holdings at each branch. */
export const countByBranch = (store: Store, found: IdQuery): Promise<{ value: string; n: number }[]> =>
  store.rows<{ value: string; n: number }>(
    `SELECT h.branch AS value, COUNT(DISTINCT h.record) AS n FROM ${found.all ? 'holdings h' : `(${found.sql}) f CROSS JOIN holdings h ON h.record = f.id`} GROUP BY 1 ORDER BY 2 DESC`,
    { ...found.params },
  );
