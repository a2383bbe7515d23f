import { COPY_OUTCOMES, type CopyOutcome, type StockFindingKind } from '@osier/core/stocktake';
import type { Store } from '../store/store';

/** How many copies of a stretch have each outcome. */
export async function countOutcomes(store: Store, id: number): Promise<Record<string, number>> {
  const rows = await store.rows<{ outcome: number; n: number }>(
    'SELECT outcome, COUNT(*) AS n FROM stocktake_expected WHERE stocktake = :id GROUP BY outcome',
    { id },
  );
  return Object.fromEntries(
    COPY_OUTCOMES.map((name, i) => [name, rows.find((r) => r.outcome === i)?.n ?? 0]),
  );
}

/** How many findings of each kind there are, and how many of them are settled; missing copies have it as their outcome. */
export const countKinds = (
  store: Store,
  id: number,
): Promise<{ kind: StockFindingKind; count: number; settled: number }[]> =>
  store.rows<{ kind: StockFindingKind; count: number; settled: number }>(
    `SELECT f.kind, COUNT(*) AS count, COUNT(s.id) AS settled FROM stocktake_findings f
       LEFT JOIN settled_findings s ON s.stocktake = f.stocktake AND s.finding = f.kind AND s.code = f.code WHERE f.stocktake = :id GROUP BY f.kind
     UNION ALL SELECT 'missing', n, (SELECT COUNT(*) FROM settled_findings s JOIN stocktake_expected e ON e.stocktake = s.stocktake AND e.barcode = s.code
         AND e.outcome = ${COPY_OUTCOMES.indexOf('missing')} WHERE s.stocktake = :id AND s.finding = 'missing')
       FROM (SELECT COUNT(*) AS n FROM stocktake_expected WHERE stocktake = :id AND outcome = ${COPY_OUTCOMES.indexOf('missing')}) WHERE n > 0`,
    { id },
  );

/** A finding as it is kept, with what was done about it (JSON). */
export interface KeptFinding {
  readonly code: string;
  readonly place: number;
  readonly detail: string;
  readonly settled: string | null;
}

/** A page of the findings of one kind behind a place. */
export const findingsOfKind = (
  store: Store,
  id: number,
  kind: StockFindingKind,
  after: { readonly place: number; readonly code: string },
  atMost: number,
): Promise<KeptFinding[]> =>
  store.rows<KeptFinding>(
    `SELECT f.code, f.place, f.detail, s.value AS settled FROM stocktake_findings f
       LEFT JOIN settled_findings s ON s.stocktake = f.stocktake AND s.finding = f.kind AND s.code = f.code
      WHERE f.stocktake = :id AND f.kind = :kind AND (f.place, f.code) > (:place, :code) ORDER BY f.place, f.code LIMIT :atMost`,
    { id, kind, ...after, atMost },
  );

/** Some findings of a kind by their codes. */
export const findingsWithCodes = (
  store: Store,
  id: number,
  kind: StockFindingKind,
  codes: readonly string[],
): Promise<KeptFinding[]> =>
  store.rows<KeptFinding>(
    `SELECT f.code, f.place, f.detail, s.value AS settled FROM json_each(:codes) w
       CROSS JOIN stocktake_findings f ON f.stocktake = :id AND f.kind = :kind AND f.code = w.value
       LEFT JOIN settled_findings s ON s.stocktake = f.stocktake AND s.finding = f.kind AND s.code = f.code`,
    { id, kind, codes: JSON.stringify(codes) },
  );

/** A copy of a stretch as it was when the stocktake started. */
export interface StretchCopy {
  readonly copy: number;
  readonly barcode: string;
  readonly shelfKey: string;
  readonly branch: string;
  readonly location: string;
  readonly type: string;
  readonly callNumber: string;
  readonly title: string;
  readonly record: number;
  readonly outcome: number;
  /** What was done about its being missing (JSON), or null. */
  readonly settled: string | null;
}
const STRETCH_COPY = `e.copy, e.barcode, e.shelf_key AS shelfKey, e.branch, e.location, e.type, e.call_number AS callNumber, e.title, e.record, e.outcome,
  s.value AS settled FROM stocktake_expected e LEFT JOIN settled_findings s ON s.stocktake = e.stocktake AND s.finding = 'missing' AND s.code = e.barcode`;

/** Where a page of copies begins: behind a place on the shelf. */
export interface AfterPlace {
  readonly shelfKey: string;
  readonly barcode: string;
}

/** Barcodes of the copies that a stocktake misses, in the order of the shelf. */
export const missingCopies = async (store: Store, id: number): Promise<readonly string[]> =>
  (
    await store.rows<{ barcode: string }>(
      `SELECT c.barcode FROM stocktake_expected e JOIN copies c ON c.id = e.copy
        WHERE e.stocktake = :id AND e.outcome = :missing ORDER BY e.shelf_key, e.barcode LIMIT 20000`,
      { id, missing: COPY_OUTCOMES.indexOf('missing') },
    )
  ).map((r) => r.barcode);

/** A page of copies of a stretch in the order of the shelf; those with one outcome, or all. */
export const copiesOfStretch = (
  store: Store,
  id: number,
  outcome: CopyOutcome | null,
  after: AfterPlace,
  atMost: number,
): Promise<StretchCopy[]> =>
  store.rows<StretchCopy>(
    `SELECT ${STRETCH_COPY} WHERE e.stocktake = :id ${outcome === null ? '' : 'AND e.outcome = :outcome'} AND (e.shelf_key, e.barcode) > (:shelfKey, :barcode)
      ORDER BY e.shelf_key, e.barcode LIMIT :atMost`,
    { id, outcome: outcome === null ? null : COPY_OUTCOMES.indexOf(outcome), ...after, atMost },
  );

/** A copy with the call numbers of the nearest copies of its location that stood, before and behind it. */
export interface Neighbours {
  readonly barcode: string;
  readonly after: string | null;
  readonly before: string | null;
}

const nearest = (isBefore: boolean): string =>
  `(SELECT p.call_number FROM stocktake_expected p WHERE p.stocktake = e.stocktake AND p.location = e.location AND p.outcome = 0
     AND (p.shelf_key, p.barcode) ${isBefore ? '<' : '>'} (e.shelf_key, e.barcode) ORDER BY p.shelf_key ${isBefore ? 'DESC' : ''}, p.barcode ${isBefore ? 'DESC' : ''} LIMIT 1)`;

/** Between which copies that stood some copies of a stretch belong. */
export const neighboursOf = (store: Store, id: number, copies: readonly number[]): Promise<Neighbours[]> =>
  store.rows<Neighbours>(
    `SELECT e.barcode, ${nearest(true)} AS after, ${nearest(false)} AS before FROM stocktake_expected e
      WHERE e.stocktake = :id AND e.copy IN (SELECT value FROM json_each(:copies))`,
    { id, copies: JSON.stringify(copies) },
  );

/** Which of some Dewey classes copies of a stretch have. */
export const classesThere = async (
  store: Store,
  id: number,
  classes: readonly string[],
): Promise<ReadonlySet<string>> =>
  new Set(
    (
      await store.rows<{ value: string }>(
        `SELECT v.value FROM json_each(:classes) v WHERE EXISTS (SELECT 1 FROM stocktake_expected e
           WHERE e.stocktake = :id AND e.shelf_key >= v.value AND e.shelf_key < v.value || '!')`,
        { id, classes: JSON.stringify(classes) },
      )
    ).map((r) => r.value),
  );

/** What helps to look for some copies of a stretch: when each was seen last (not told once the stocktake is closed), and where other books of its author stand. */
export const clues = (
  store: Store,
  id: number,
  copies: readonly number[],
): Promise<{ copy: number; lastSeen: string; ofAuthor: string }[]> =>
  store.rows<{ copy: number; lastSeen: string; ofAuthor: string }>(
    `SELECT e.copy, CASE WHEN s.state = 'closed' THEN '' ELSE ifnull(c.last_seen, '') END AS lastSeen, (SELECT json_group_array(call_number) FROM (SELECT DISTINCT o.call_number FROM stocktake_expected o
         WHERE o.stocktake = :id AND o.author = e.author AND o.author <> '' AND o.outcome = ${COPY_OUTCOMES.indexOf('stood')}
           AND o.call_number <> e.call_number ORDER BY o.shelf_key LIMIT 3)) AS ofAuthor
       FROM json_each(:copies) v CROSS JOIN stocktake_expected e ON e.stocktake = :id AND e.copy = v.value JOIN stocktakes s ON s.id = e.stocktake LEFT JOIN copies c ON c.id = e.copy`,
    { id, copies: JSON.stringify(copies) },
  );

/** Copies of a stretch by their barcodes. */
export const copiesWithBarcodes = (
  store: Store,
  id: number,
  barcodes: readonly string[],
): Promise<StretchCopy[]> =>
  store.rows<StretchCopy>(
    `SELECT ${STRETCH_COPY} WHERE e.stocktake = :id AND e.barcode IN (SELECT value FROM json_each(:barcodes))`,
    { id, barcodes: JSON.stringify(barcodes) },
  );

/** The walks and files of a stocktake; `person` is the name of who scanned. */
export const runsOfStocktake = (
  store: Store,
  id: number,
): Promise<
  {
    id: number;
    name: string;
    location: string;
    person: string;
    scans: number;
    began: string;
    ended: string;
  }[]
> =>
  store.rows<{
    id: number;
    name: string;
    location: string;
    person: string;
    scans: number;
    began: string;
    ended: string;
  }>(
    `SELECT r.id, r.name, r.location, ifnull(p.name, '') AS person, r.scans, r.began, r.ended FROM stocktake_runs r LEFT JOIN people p ON p.id = r.person
      WHERE r.stocktake = :id AND r.scans > 0 ORDER BY r.began, r.id`,
    { id },
  );

/** The pieces of the pictures of walks: how many spines of each state (JSON). */
export const stripParts = (
  store: Store,
  id: number,
): Promise<{ run: number; part: number; states: string }[]> =>
  store.rows<{ run: number; part: number; states: string }>(
    'SELECT run, part, states FROM stocktake_spines WHERE stocktake = :id ORDER BY run, part',
    { id },
  );

/** The spines of one piece, as JSON. */
export const stripPart = (
  store: Store,
  id: number,
  run: number,
  part: number,
): Promise<{ spines: string } | undefined> =>
  store.row<{ spines: string }>(
    'SELECT spines FROM stocktake_spines WHERE stocktake = :id AND run = :run AND part = :part',
    { id, run, part },
  );

/** Copies of a stretch by outcome and another part: `location`, or the first digits of the call number. */
export const outcomesBy = (
  store: Store,
  id: number,
  by: 'location' | 'class',
): Promise<{ name: string; outcome: number; n: number }[]> =>
  store.rows<{ name: string; outcome: number; n: number }>(
    `SELECT ${by === 'location' ? 'location' : `CASE WHEN shelf_key GLOB '[0-9][0-9][0-9]*' THEN substr(shelf_key, 1, 3) ELSE rtrim(substr(call_number, 1, instr(call_number || ' ', ' ') - 1), '0123456789.') END`} AS name,
       outcome, COUNT(*) AS n FROM stocktake_expected WHERE stocktake = :id GROUP BY 1, 2 ORDER BY 1`,
    { id },
  );
