import { ruleNow } from '@osier/core/checks';
import type { IncomingRow } from '@osier/contract';
import { OUTCOMES, type Outcome } from '@osier/core/matching';
import { wrong } from '../http/problem';
import type { Store } from '../store/store';

/** An incoming record with its fields and what was found when it was read, as columns. */
export interface IncomingColumns {
  readonly id: number;
  readonly version: number;
  readonly value: string;
  readonly seq: number;
  readonly title: string;
  readonly author: string;
  readonly isbn: string;
  readonly year: string;
  readonly decision: Outcome;
  readonly copies: number;
  readonly copy_problems: number;
  readonly note: string;
  readonly state: IncomingRow['state'];
  readonly record: number | null;
  readonly errors: number;
  readonly warnings: number;
  readonly advice: number;
  readonly matches: string;
  readonly repeats: number | null;
  readonly repairs: string;
  readonly recipe: string | null;
}

const FACETS: Readonly<Record<string, string>> = {
  waiting: "i.state = 'waiting'",
  accepted: "i.state = 'accepted'",
  skipped: "i.state = 'skipped'",
  ...Object.fromEntries(OUTCOMES.map((o) => [o, `i.state = 'waiting' AND i.decision = '${o}'`])),
  held: "r.matches <> '[]'",
  twice: 'r.repeats IS NOT NULL',
  copies_yes: 'i.copies > 0',
  copies_no: 'i.copies = 0',
  problem: "i.state = 'waiting' AND (i.copy_problems > 0 OR f.errors > 0)",
  ready:
    "i.state = 'waiting' AND i.decision IN ('add', 'replace', 'merge', 'copies') AND i.copy_problems = 0",
  clear:
    "i.state = 'waiting' AND i.decision <> 'ask' AND i.copy_problems = 0 AND f.errors = 0 AND f.warnings = 0 AND f.advice = 0",
  noted: "i.note <> ''",
  errors: 'f.errors > 0',
  warnings: 'f.warnings > 0',
  repaired: "r.repairs <> '[]'",
};

/** Records that wait and in which a check found something. */
const HAS_RULE =
  "i.state = 'waiting' AND EXISTS (SELECT 1 FROM json_each(f.findings) n WHERE json_extract(n.value, '$.rule') = :rule)";
/** An incoming record (`i`), its fields (`f`), and what was found when it was read (`r`). */
const TABLES = 'incoming i JOIN incoming_fields f ON f.id = i.id JOIN incoming_read r ON r.incoming = i.id';
const FROM = `FROM ${TABLES} WHERE i.delivery = :id`;

const COLUMNS = `i.*, f.title, f.author, f.isbn, f.year, f.errors, f.warnings, f.advice, json_extract(f.value, '$.recipe') AS recipe,
  r.matches, r.repeats, r.repairs`;

/** What comes after the exceptions: a record that waits, is decided, and has nothing wrong. */
const EXCEPTION =
  "CASE WHEN i.state = 'waiting' AND (i.decision = 'ask' OR i.copy_problems > 0 OR f.errors > 0) THEN 0 ELSE 1 END";
const FAR = 10_000_000;

/** The condition of a facet on incoming records (`i`) and what was read of them (`r`); `:rule` is its parameter. */
function facetCondition(facet: string | undefined): { condition: string; rule: string | undefined } {
  const named = /^rule:([a-z0-9-]+)$/.exec(facet ?? '')?.[1];
  const rule = named && ruleNow(named);
  const own = facet && Object.hasOwn(FACETS, facet) ? FACETS[facet] : undefined;
  const condition = rule === undefined ? (facet ? own : '1') : HAS_RULE;
  if (!condition) throw wrong('facet', `There is no facet “${facet}”.`);
  return { condition, rule };
}

/** Throws (422) when there is no such facet. */
export const checkFacet = (facet: string | undefined): void => void facetCondition(facet);

/** A page of a delivery's records under a facet, behind a place, with the place of each. In a list of what waits, what a person must look at comes first. */
export function pageOfIncoming(
  store: Store,
  delivery: number,
  page: { readonly facet: string | undefined; readonly after: number; readonly atMost: number },
): Promise<(IncomingColumns & { place: number })[]> {
  const { facet, after, atMost } = page;
  const { condition, rule } = facetCondition(facet);
  const first = !facet || facet === 'waiting' ? EXCEPTION : '0';
  return store.rows<IncomingColumns & { place: number }>(
    `WITH page AS (SELECT i.id AS one, (${first}) * ${FAR} + i.seq AS place ${FROM} AND ${condition} AND place > :after ORDER BY place LIMIT :atMost)
     SELECT ${COLUMNS}, page.place FROM page CROSS JOIN ${TABLES} WHERE i.id = page.one ORDER BY page.place`,
    { id: delivery, after, atMost, rule },
  );
}

/** How many records of a delivery fall under each facet, `all` among them. */
export async function countFacets(store: Store, delivery: number): Promise<Record<string, number>> {
  const sums = Object.entries(FACETS)
    .map(([name, c]) => `COALESCE(SUM(${c}), 0) AS "${name}"`)
    .join(', ');
  const row = await store.row<Record<string, number>>(`SELECT COUNT(*) AS "all", ${sums} ${FROM}`, {
    id: delivery,
  });
  return row ?? {};
}

/** How many records of a delivery fall under one facet. */
export async function countUnder(store: Store, delivery: number, facet: string | undefined): Promise<number> {
  const { condition, rule } = facetCondition(facet);
  const row = await store.row<{ n: number }>(`SELECT COUNT(*) AS n ${FROM} AND ${condition}`, {
    id: delivery,
    rule,
  });
  return row?.n ?? 0;
}

/** How many records under a facet can be accepted. */
export async function countReady(store: Store, delivery: number, facet: string | undefined): Promise<number> {
  const { condition, rule } = facetCondition(facet);
  const row = await store.row<{ n: number }>(
    `SELECT COUNT(*) AS n ${FROM} AND (${condition}) AND ${FACETS.ready ?? '0'}`,
    { id: delivery, rule },
  );
  return row?.n ?? 0;
}

/** Which of some records fall under a facet, and whether the best match of each is sure. */
export function underFacet(
  store: Store,
  ids: readonly number[],
  facet: string,
): Promise<{ id: number; sure: 0 | 1 | null }[]> {
  const { condition, rule } = facetCondition(facet);
  return store.rows<{ id: number; sure: 0 | 1 | null }>(
    `SELECT i.id, json_extract(r.matches, '$[0].sure') AS sure FROM ${TABLES} WHERE i.id IN (SELECT value FROM json_each(:ids)) AND ${condition}`,
    { ids: JSON.stringify(ids), rule },
  );
}

/** One record of a delivery, with its fields, findings and original as JSON. */
export const incomingColumns = (
  store: Store,
  delivery: number,
  incoming: number,
): Promise<(IncomingColumns & { fields: string; findings: string; original: string }) | undefined> =>
  store.row<IncomingColumns & { fields: string; findings: string; original: string }>(
    `SELECT ${COLUMNS}, f.value AS fields, f.findings, r.original ${FROM} AND i.id = :incoming`,
    { id: delivery, incoming },
  );

/** A record of a delivery as the report of it is made from. */
export interface ReportColumns {
  readonly id: number;
  readonly seq: number;
  readonly title: string;
  readonly author: string;
  readonly isbn: string;
  readonly year: string;
  readonly state: IncomingRow['state'];
  readonly decision: Outcome;
  readonly record: number | null;
  readonly errors: number;
  readonly warnings: number;
  readonly advice: number;
  readonly note: string;
  readonly value: string;
  readonly repairs: string;
}

/** Records of a delivery behind a place in the file, for its report. */
export const reportColumns = (
  store: Store,
  delivery: number,
  after: number,
  atMost: number,
): Promise<ReportColumns[]> =>
  store.rows<ReportColumns>(
    `SELECT i.id, i.seq, f.title, f.author, f.isbn, f.year, i.state, i.decision, i.record, f.errors, f.warnings, f.advice, i.note, i.value, r.repairs
     FROM ${TABLES} WHERE i.delivery = :delivery AND i.seq > :after ORDER BY i.seq LIMIT :atMost`,
    { delivery, after, atMost },
  );

/** The records of the catalogue that accepted ones behind a place in the file became. */
export const becameRecords = (
  store: Store,
  delivery: number,
  after: number,
  atMost: number,
): Promise<{ seq: number; record: number }[]> =>
  store.rows<{ seq: number; record: number }>(
    `SELECT seq, record FROM incoming WHERE delivery = :delivery AND state = 'accepted' AND record IS NOT NULL AND seq > :after
      ORDER BY seq LIMIT :atMost`,
    { delivery, after, atMost },
  );

/** Which of some records have holdings. */
export async function recordsWithHoldings(store: Store, records: readonly number[]): Promise<number[]> {
  const rows = await store.rows<{ record: number }>(
    'SELECT DISTINCT record FROM holdings WHERE record IN (SELECT value FROM json_each(:records))',
    { records: JSON.stringify(records) },
  );
  return rows.map((r) => r.record);
}
