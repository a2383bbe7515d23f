import type { DeliveryRow } from '@osier/contract';
import type { Outcome } from '@osier/core/matching';
import type { Severity } from '@osier/core/checks';
import type { Transaction } from '../store/database';
import type { StoredObject } from '@osier/core/kinds';
import { Op } from 'sequelize';
import type { Store } from '../store/store';

/** A delivery with how far it was read and how many of its records wait, are accepted, are skipped. */
export interface DeliveryColumns {
  readonly id: number;
  readonly value: string;
  readonly state: DeliveryRow['state'];
  readonly problem: string | null;
  readonly unreadable: number;
  readonly repaired: number;
  readonly records: number;
  readonly waiting: number;
  readonly accepted: number;
  readonly skipped: number;
}

/** Deliveries, the newest first; only one of them, if so wanted. */
export const deliveriesWithCounts = (store: Store, only?: number): Promise<DeliveryColumns[]> =>
  store.rows<DeliveryColumns>(
    `SELECT d.id, d.value, r.state, r.problem, r.unreadable, r.repaired, COALESCE(SUM(c.n), 0) AS records,
       COALESCE(SUM(c.n) FILTER (WHERE c.state = 'waiting'), 0) AS waiting, COALESCE(SUM(c.n) FILTER (WHERE c.state = 'accepted'), 0) AS accepted,
       COALESCE(SUM(c.n) FILTER (WHERE c.state = 'skipped'), 0) AS skipped
     FROM deliveries d LEFT JOIN readings r ON r.delivery = d.id LEFT JOIN delivery_counts c ON c.delivery = d.id
     WHERE d.gone = 0 ${only ? 'AND d.id = :only' : ''} GROUP BY d.id ORDER BY d.id DESC`,
    { only },
  );

/** The first delivery of the same file before one. */
export const firstOfSameFile = (
  store: Store,
  sha256: string,
  before: number,
): Promise<{ id: number; value: string } | undefined> =>
  store.row<{ id: number; value: string }>(
    'SELECT id, value FROM deliveries WHERE sha256 = :sha256 AND id < :before ORDER BY id LIMIT 1',
    { sha256, before },
  );

/** How many records of a delivery stand how, with their copies. */
export interface StateCounts {
  readonly state: string;
  readonly decision: Outcome;
  readonly n: number;
  readonly copies: number;
  readonly problems: number;
}

/** Counts of a delivery by state and decision. */
export const countByDecision = (store: Store, delivery: number): Promise<StateCounts[]> =>
  store.rows<StateCounts>(
    'SELECT state, decision, n, copies, problems FROM delivery_counts WHERE delivery = :delivery AND n > 0',
    { delivery },
  );

/** Findings of a delivery by rule, as it was read and as it is now. */
export const countFindings = (
  store: Store,
  delivery: number,
): Promise<{ at: 'before' | 'after'; rule: string; severity: Severity; n: number }[]> =>
  store.rows<{ at: 'before' | 'after'; rule: string; severity: Severity; n: number }>(
    `SELECT 'before' AS at, json_extract(f.value, '$.rule') AS rule, json_extract(f.value, '$.severity') AS severity, COUNT(*) AS n
       FROM incoming i JOIN incoming_read r ON r.incoming = i.id, json_each(r.before) f WHERE i.delivery = :delivery GROUP BY 2, 3
     UNION ALL SELECT 'after', json_extract(f.value, '$.rule'), json_extract(f.value, '$.severity'), COUNT(*)
       FROM incoming i JOIN incoming_fields n ON n.id = i.id, json_each(n.findings) f WHERE i.delivery = :delivery GROUP BY 2, 3`,
    { delivery },
  );

/** A kind of finding: how often, in how many records, with how many safe and other fixes. */
export interface RuleCounts {
  readonly rule: string;
  readonly severity: Severity;
  readonly findings: number;
  readonly records: number;
  readonly safe: number;
  readonly look: number;
}

/** What the checks found in the waiting records of a delivery, by rule. */
export const countWaitingFindings = (store: Store, delivery: number): Promise<RuleCounts[]> =>
  store.rows<RuleCounts>(
    `SELECT json_extract(f.value, '$.rule') AS rule, json_extract(f.value, '$.severity') AS severity,
       COUNT(*) AS findings, COUNT(DISTINCT i.id) AS records,
       COALESCE(SUM(json_extract(f.value, '$.fix.safe') = 1), 0) AS safe, COALESCE(SUM(json_extract(f.value, '$.fix.safe') = 0), 0) AS look
     FROM incoming i JOIN incoming_fields n ON n.id = i.id, json_each(n.findings) f WHERE i.delivery = :delivery AND i.state = 'waiting' GROUP BY 1, 2`,
    { delivery },
  );

/** Whether a record of a delivery was decided about, changed or accepted. */
export const wasWorkedOn = async (store: Store, delivery: number): Promise<boolean> =>
  (await store.row(
    "SELECT id FROM incoming WHERE delivery = :delivery AND (state <> 'waiting' OR version > 1) LIMIT 1",
    { delivery },
  )) !== undefined;

/** Takes away what was read of a delivery, for its being read anew. */
export async function forgetReading(store: Store, delivery: number, tx: Transaction): Promise<void> {
  const own = 'SELECT id FROM incoming WHERE delivery = :delivery';
  await store.run(`DELETE FROM incoming_read WHERE incoming IN (${own})`, { delivery }, tx);
  await store.run(`DELETE FROM incoming_fields WHERE id IN (${own})`, { delivery }, tx);
  await store.run('DELETE FROM incoming WHERE delivery = :delivery', { delivery }, tx);
}

/** Counts more records of a delivery as unreadable or repaired. */
export const countRead = (
  store: Store,
  delivery: number,
  more: { readonly unreadable: number; readonly repaired: number },
  tx: Transaction,
): Promise<void> =>
  store.run(
    'UPDATE readings SET unreadable = unreadable + :unreadable, repaired = repaired + :repaired WHERE delivery = :delivery',
    { delivery, ...more },
    tx,
  );

/**
 * Keeps with a delivery that it is matched from now on: whatever is written by this or a later entry of the daybook may be
 * missed. Long work that is under way goes on writing under the entry it began.
 */
export const keepMatchedBefore = (store: Store, delivery: number, tx: Transaction): Promise<void> =>
  store.run(
    `UPDATE readings SET since = MIN((SELECT COALESCE(MAX(id), 0) + 1 FROM daybook),
       COALESCE((SELECT MIN(entry) FROM jobs WHERE state IN ('running', 'waiting') AND entry IS NOT NULL), 9e15)) WHERE delivery = :delivery`,
    { delivery },
    tx,
  );

/** The first entry of the daybook that the matching of a delivery does not know. */
export const matchedBefore = async (store: Store, delivery: number): Promise<number> =>
  (await store.table('readings').first({ where: { delivery } }))?.since ?? 0;

/** Keeps the matches (JSON) of incoming records, and which record of the file each repeats. */
export const keepMatches = (
  store: Store,
  rows: readonly (readonly [incoming: number, matches: string, repeats: number | null])[],
  tx: Transaction,
): Promise<void> =>
  store.bind(
    `UPDATE incoming_read SET matches = v.matches, repeats = v.repeats
       FROM (SELECT json_extract(value, '$[0]') AS id, json_extract(value, '$[1]') AS matches, json_extract(value, '$[2]') AS repeats FROM json_each($1)) v
       WHERE incoming = v.id`,
    [JSON.stringify(rows)],
    tx,
  );

/** The matches (JSON) of some incoming records. */
export const matchesOf = (
  store: Store,
  ids: readonly number[],
): Promise<{ incoming: number; matches: string }[]> =>
  store.rows<{ incoming: number; matches: string }>(
    'SELECT incoming, matches FROM incoming_read WHERE incoming IN (SELECT value FROM json_each(:ids))',
    { ids: JSON.stringify(ids) },
  );

/** The titles that have some barcodes. */
export const copiesByBarcode = (
  store: Store,
  barcodes: readonly string[],
): Promise<{ barcode: string; title: string }[]> =>
  store.rows<{ barcode: string; title: string }>(
    `SELECT c.barcode, r.title FROM copies c JOIN holdings h ON h.id = c.holding JOIN records r ON r.id = h.record
      WHERE c.barcode IN (SELECT value FROM json_each(:barcodes))`,
    { barcodes: JSON.stringify(barcodes) },
  );

/** The copy numbers of some records, by the part that they number. */
export const copyNumbersOf = (
  store: Store,
  records: readonly number[],
): Promise<{ record: number; part: string; number: number }[]> =>
  store.rows<{ record: number; part: string; number: number }>(
    'SELECT record, part, number FROM copies WHERE record IN (SELECT value FROM json_each(:records)) AND number > 0',
    { records: JSON.stringify(records) },
  );

/** Which of some records were replaced by an accepted one of a delivery. */
export async function replacedIn(
  store: Store,
  delivery: number,
  records: readonly number[],
): Promise<number[]> {
  const rows = await store.rows<{ record: number }>(
    `SELECT record FROM incoming WHERE delivery = :delivery AND state = 'accepted' AND decision = 'replace'
       AND record IN (SELECT value FROM json_each(:records))`,
    { delivery, records: JSON.stringify(records) },
  );
  return rows.map((r) => r.record);
}

/** How many errors the checks found in some incoming records. */
export const errorsIn = (store: Store, ids: readonly number[]): Promise<{ id: number; errors: number }[]> =>
  store.rows<{ id: number; errors: number }>(
    'SELECT id, errors FROM incoming_fields WHERE id IN (SELECT value FROM json_each(:ids))',
    { ids: JSON.stringify(ids) },
  );

/** How many copies some records have. */
export const countCopiesOf = (
  store: Store,
  records: readonly number[],
): Promise<{ record: number; n: number }[]> =>
  store.rows<{ record: number; n: number }>(
    'SELECT record, COUNT(*) AS n FROM copies WHERE record IN (SELECT value FROM json_each(:records)) GROUP BY 1',
    { records: JSON.stringify(records) },
  );

/** Only records that were written by this entry of the daybook or a later one, and did not come with this delivery. */
export interface WrittenSince {
  readonly entry: number;
  readonly delivery: number;
}
const SINCE = `AND EXISTS (SELECT 1 FROM daybook_objects d WHERE d.kind = 'record' AND d.object = k.record AND d.entry >= :entry)
  AND NOT EXISTS (SELECT 1 FROM incoming i WHERE i.record = k.record AND i.delivery = :delivery)`;

/** Whether an entry of the daybook, from one on, has written records; but for one's own. */
export const recordsWrittenSince = async (store: Store, entry: number, own?: number): Promise<boolean> =>
  (await store.row(
    `SELECT 1 FROM daybook e WHERE e.id >= :entry AND e.id <> :own
       AND EXISTS (SELECT 1 FROM daybook_objects o WHERE o.kind = 'record' AND o.entry = e.id) LIMIT 1`,
    { entry, own: own ?? 0 },
  )) !== undefined;

/** For each key of a kind, the records that have it (JSON), at most `atMost` of them. */
export const recordsSharing = (
  store: Store,
  kind: string,
  keys: readonly string[],
  atMost: number,
  since?: WrittenSince,
): Promise<{ key: string; records: string }[]> =>
  store.rows<{ key: string; records: string }>(
    `SELECT w.value AS key, (SELECT json_group_array(record) FROM (SELECT k.record FROM record_keys k
       WHERE k.kind = :kind AND k.key = w.value ${since ? SINCE : ''} LIMIT :atMost)) AS records FROM json_each(:keys) w`,
    { kind, keys: JSON.stringify(keys), atMost, ...since },
  );

/** The descriptions (JSON) by which some records are matched. */
export const descriptionsIn = (
  store: Store,
  records: readonly number[],
): Promise<{ id: number; matching: string }[]> =>
  store.rows<{ id: number; matching: string }>(
    "SELECT id, matching FROM records WHERE matching <> '' AND id IN (SELECT value FROM json_each(:records))",
    { records: JSON.stringify(records) },
  );

/** Entries that accepted records of a delivery, or took that back, in their order. */
export async function acceptingEntries(store: Store, delivery: number): Promise<number[]> {
  const rows = await store.rows<{ entry: number }>(
    `WITH RECURSIVE accepting(entry) AS (
       SELECT DISTINCT o.entry FROM incoming i CROSS JOIN daybook_objects o ON o.kind = 'incoming' AND o.object = i.id JOIN daybook d ON d.id = o.entry
         WHERE i.delivery = :delivery AND d.act IN ('accept', 'take-back')
       UNION SELECT d.id FROM accepting a JOIN daybook d ON d.undoes = a.entry)
     SELECT entry FROM accepting ORDER BY entry`,
    { delivery },
  );
  return rows.map((r) => r.entry);
}

/** Marks the entries of accepting before one as undone by it, where nothing that they accepted is accepted now. */
export const markUndone = (store: Store, delivery: number, entry: number, tx: Transaction): Promise<void> =>
  store.run(
    `UPDATE daybook SET undone_by = :entry WHERE act = 'accept' AND undone_by IS NULL AND id < :entry
       AND id IN (SELECT o.entry FROM incoming i CROSS JOIN daybook_objects o ON o.kind = 'incoming' AND o.object = i.id WHERE i.delivery = :delivery)
       AND NOT EXISTS (SELECT 1 FROM daybook_objects o JOIN incoming i ON i.id = o.object WHERE o.kind = 'incoming' AND o.entry = daybook.id AND i.state <> 'waiting')`,
    { entry, delivery },
    tx,
  );

/** Incoming records of a delivery behind a place in the file that wait, or that do not any more, in the order of the file. */
export const incomingBehind = (
  store: Store,
  delivery: number,
  { waits, after, atMost }: { readonly waits: boolean; readonly after: number; readonly atMost: number },
): Promise<StoredObject<'incoming'>[]> =>
  store.find('incoming', {
    where: { delivery, state: waits ? 'waiting' : { [Op.ne]: 'waiting' }, seq: { [Op.gt]: after } },
    order: [['seq', 'ASC']],
    limit: atMost,
  });
