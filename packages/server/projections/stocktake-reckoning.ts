import { FINDING_KINDS } from '@osier/core/stocktake';
import type { ReckonOrder, Reckoned } from '../stocktake/reckon-order';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';

/** Copies that go to the thread in one piece. */
const AT_ONCE = 5000;

/** What a copy is told as: the copies of the stretch as they were when it started, others as they stand now. */
const ROW = (parts: string) => `json_array(${parts})`;

/** The copies of a stretch behind a number, with how they stand now, as one JSON text; what is marked missing here, and was not scanned since, counts as it did. */
const OF_STRETCH = `SELECT MAX(id) AS last, json_group_array(json(row)) AS rows FROM (SELECT e.copy AS id,
   ${ROW(`e.copy, e.barcode,
     CASE WHEN c.id IS NULL THEN 'withdrawn' WHEN l.state = 'on loan' THEN 'on loan'
       WHEN c.status = 'missing' AND n.code IS NULL AND EXISTS (SELECT 1 FROM settled_findings f WHERE f.stocktake = :id AND f.finding = 'missing' AND f.code = e.barcode) THEN 'available'
       ELSE c.status END,
     ifnull(c.last_seen, ''), e.branch, e.location, e.type, e.shelf_key, e.author, e.title, e.call_number, e.record, e.outcome, ifnull(n.day, ''), ifnull(substr(l.at, 1, 10), '')`)} AS row
   FROM stocktake_expected e LEFT JOIN copies c ON c.id = e.copy LEFT JOIN stocktake_loans l ON l.stocktake = e.stocktake AND l.barcode = e.barcode
     LEFT JOIN stocktake_seen n ON n.stocktake = e.stocktake AND n.code = e.barcode
   WHERE e.stocktake = :id AND e.copy > :after ORDER BY e.copy LIMIT ${AT_ONCE})`;

const OTHERS = `SELECT json_group_array(json(row)) AS rows FROM (SELECT
   ${ROW(`c.id, c.barcode, CASE WHEN l.state = 'on loan' THEN 'on loan' ELSE c.status END, c.last_seen, h.branch, h.location, c.type, h.shelf_key,
     ifnull(r.author, ''), ifnull(r.title, ''), h.call_number, h.record, NULL, n.day, ifnull(substr(l.at, 1, 10), '')`)} AS row
   FROM stocktake_seen n CROSS JOIN copies c ON c.barcode = n.code JOIN holdings h ON h.id = c.holding LEFT JOIN record_rows r ON r.id = h.record
   LEFT JOIN stocktake_loans l ON l.stocktake = n.stocktake AND l.barcode = n.code
   WHERE n.stocktake = :id AND NOT EXISTS (SELECT 1 FROM stocktake_expected e WHERE e.stocktake = :id AND e.copy = c.id))`;

const WITHDRAWN = `SELECT json_group_array(json(row)) AS rows FROM (SELECT
   ${ROW(`MAX(w.id), n.code, 'withdrawn', '', w.value ->> 'branch', w.value ->> 'location', '', '', '', w.value ->> 'title', w.value ->> 'callNumber', w.value ->> 'record', NULL, '', ''`)} AS row
   FROM stocktake_seen n CROSS JOIN withdrawn w ON w.barcode = n.code AND w.gone = 0
   WHERE n.stocktake = :id AND NOT EXISTS (SELECT 1 FROM copies c WHERE c.barcode = n.code)
     AND NOT EXISTS (SELECT 1 FROM stocktake_expected e WHERE e.stocktake = :id AND e.barcode = n.code) GROUP BY n.code)`;

/** The copies that a stocktake is reckoned from, as JSON texts. */
async function copiesOf(store: Store, id: number): Promise<string[]> {
  const texts: string[] = [];
  for (let after: number | null = 0; after !== null;) {
    const piece: { last: number | null; rows: string } | undefined = await store.row(OF_STRETCH, {
      id,
      after,
    });
    if (piece?.last != null) texts.push(piece.rows);
    after = piece?.last ?? null;
  }
  for (const sql of [OTHERS, WITHDRAWN]) {
    const piece = await store.row<{ rows: string }>(sql, { id });
    if (piece) texts.push(piece.rows);
  }
  return texts;
}

/** The walks of a stocktake with their codes as JSON, in the order in which they were begun. */
async function runsOf(store: Store, id: number): Promise<ReckonOrder['runs']> {
  const runs = await store.rows<{ id: number; location: string; file: number; device: string; run: string }>(
    'SELECT id, location, file, device, run FROM stocktake_runs WHERE stocktake = :id AND scans > 0 ORDER BY began, id',
    { id },
  );
  const found: { id: number; location: string; codes: string }[] = [];
  for (const run of runs) {
    const row = await store.row<{ codes: string }>(
      run.file
        ? `SELECT json_extract(value, '$.codes') AS codes FROM scan_batches WHERE id = :file`
        : `SELECT json_group_array(code) AS codes FROM (SELECT code FROM scans WHERE purpose = 'stocktake' AND work = :id AND device = :device AND run = :run ORDER BY number, id)`,
      { ...run, id },
    );
    found.push({ id: run.id, location: run.location, codes: row?.codes ?? '[]' });
  }
  return found;
}

/** While people scan, a stocktake is reckoned when they pause for so long, and after so long at the latest; in milliseconds. */
const [QUIET, LATEST] = [2000, 45_000];

/** A stocktake that is to be reckoned, with the stamp of its mark; `isDue` is 0 while it is still being scanned. */
export const nextDirty = (
  store: Store,
): Promise<{ stocktake: number; stamp: number; isDue: number } | undefined> =>
  store.row<{ stocktake: number; stamp: number; isDue: number }>(
    `SELECT d.stocktake, d.stamp, (d.scanned + ${QUIET} < :now OR d.since + ${LATEST} < :now) AS isDue
       FROM stocktake_dirty d JOIN stocktakes s ON s.id = d.stocktake ORDER BY isDue DESC, d.stocktake LIMIT 1`,
    { now: Date.now() },
  );

/** The stamp of a stocktake’s mark; null when nothing of it is to be reckoned. */
export const stampOf = async (store: Store, id: number): Promise<number | null> =>
  (await store.row<{ stamp: number }>('SELECT stamp FROM stocktake_dirty WHERE stocktake = :id', { id }))
    ?.stamp ?? null;

/** What is kept of the findings of a stocktake, as JSON texts of kind, code, place and detail. */
async function findingsKept(store: Store, id: number): Promise<string[]> {
  const texts: string[] = [];
  for (const kind of FINDING_KINDS)
    for (let after: string | null = ''; after !== null;) {
      const piece: { last: string | null; rows: string } | undefined = await store.row(
        `SELECT MAX(code) AS last, json_group_array(json_array(kind, code, place, detail)) AS rows FROM (SELECT kind, code, place, detail
           FROM stocktake_findings WHERE stocktake = :id AND kind = :kind AND code > :after ORDER BY code LIMIT ${AT_ONCE})`,
        { id, kind, after },
      );
      if (piece?.last != null) texts.push(piece.rows);
      after = piece?.last ?? null;
    }
  return texts;
}

/** What one stocktake is reckoned from as it stands; `plan` is what it goes by. */
export async function reckonOrder(store: Store, id: number, plan: ReckonOrder['plan']): Promise<ReckonOrder> {
  const digests = await store.rows<{ run: number; part: number; digest: string }>(
    'SELECT run, part, digest FROM stocktake_spines WHERE stocktake = :id',
    { id },
  );
  const findings = await findingsKept(store, id);
  return { plan, copies: await copiesOf(store, id), runs: await runsOf(store, id), digests, findings };
}

/** Thrown when what is being kept is of no stocktake, or of a closed one, any more. */
class NoLongerOpen extends Error {}

/**
 * Keeps what was reckoned, piece by piece, so that nobody who writes waits for long; it is marked as being compared until all of it is kept. A settled
 * finding stays, whatever is found now. Nothing is kept of a stocktake that was closed or deleted meanwhile. Gives the codes of copies that were not found
 * before: on the shelf although recorded otherwise.
 */
export async function keepReckoned(
  store: Store,
  id: number,
  stamp: number,
  made: Reckoned,
): Promise<readonly string[]> {
  const inPiece = (work: (inside: Store, tx: Transaction) => Promise<void>) =>
    store.write(async (tx) => {
      const inside = store.within(tx);
      const state = await inside.row<{ state: string }>('SELECT state FROM stocktakes WHERE id = :id', {
        id,
      });
      if (state === undefined || state.state === 'closed') throw new NoLongerOpen();
      await work(inside, tx);
    });
  let isClosed = false;
  try {
    await keepOutcomes(id, made.changed, inPiece);
    await keepFindings(id, made, inPiece);
    await keepSpines(id, made, inPiece);
  } catch (error) {
    if (!(error instanceof NoLongerOpen)) throw error;
    isClosed = true;
  }
  await store.write(async (tx) => {
    await store.run(
      'DELETE FROM stocktake_dirty WHERE stocktake = :id AND (stamp = :stamp OR :isClosed)',
      { id, stamp, isClosed: isClosed ? 1 : 0 },
      tx,
    );
    await store.run(
      'UPDATE stocktake_dirty SET since = :now WHERE stocktake = :id',
      { id, now: Date.now() },
      tx,
    );
    tx.whenStored(() => store.feed.tell({ entry: null, kinds: { stocktake: [id] } }));
  });
  return isClosed ? [] : made.found;
}

/** Does some of the work in a transaction of its own. */
type InPiece = (work: (inside: Store, tx: Transaction) => Promise<void>) => Promise<void>;

async function keepOutcomes(id: number, changed: Reckoned['changed'], inPiece: InPiece): Promise<void> {
  const copies = new Map<number, number[]>();
  for (const [copy, outcome] of changed) {
    const own = copies.get(outcome);
    if (own) own.push(copy);
    else copies.set(outcome, [copy]);
  }
  // One statement an outcome: joined with a list of copies and outcomes, each copy of the stretch would be held against the whole list.
  for (const [outcome, own] of copies)
    for (let at = 0; at < own.length; at += AT_ONCE)
      await inPiece((store, tx) =>
        store.run(
          `UPDATE stocktake_expected SET outcome = :outcome
            WHERE stocktake = :id AND copy IN (SELECT value FROM json_each(:copies))`,
          { id, outcome, copies: JSON.stringify(own.slice(at, at + AT_ONCE)) },
          tx,
        ),
      );
}

const IS_SETTLED = (kind: string, code: string) =>
  `EXISTS (SELECT 1 FROM settled_findings s WHERE s.stocktake = $2 AND s.finding = ${kind} AND s.code = ${code})`;

async function keepFindings(
  id: number,
  { goneFindings, newFindings }: Reckoned,
  inPiece: InPiece,
): Promise<void> {
  for (const keys of goneFindings)
    await inPiece((store, tx) =>
      store.bind(
        `DELETE FROM stocktake_findings WHERE stocktake = $2 AND (kind, code) IN (SELECT value ->> 0, value ->> 1 FROM json_each($1))
            AND NOT ${IS_SETTLED('stocktake_findings.kind', 'stocktake_findings.code')}`,
        [keys, id],
        tx,
      ),
    );
  for (const rows of newFindings)
    await inPiece((store, tx) =>
      store.bind(
        `INSERT INTO stocktake_findings (stocktake, kind, code, place, detail)
           SELECT $2, row.value ->> 0, row.value ->> 1, row.value ->> 2, row.value ->> 3 FROM json_each($1) row
            WHERE NOT ${IS_SETTLED('row.value ->> 0', 'row.value ->> 1')}
           ON CONFLICT (stocktake, kind, code) DO UPDATE SET place = excluded.place, detail = excluded.detail`,
        [rows, id],
        tx,
      ),
    );
}

/** Pieces of pictures that are kept at once. */
const SPINES_AT_ONCE = 10;

async function keepSpines(id: number, { parts, spines }: Reckoned, inPiece: InPiece): Promise<void> {
  await inPiece((store, tx) =>
    store.run(
      `DELETE FROM stocktake_spines WHERE stocktake = :id AND NOT EXISTS (SELECT 1 FROM json_each(:lengths) l
         WHERE l.value ->> 0 = stocktake_spines.run AND stocktake_spines.part < l.value ->> 1)`,
      { id, lengths: JSON.stringify(parts) },
      tx,
    ),
  );
  for (let at = 0; at < spines.length; at += SPINES_AT_ONCE)
    await inPiece((store, tx) =>
      insertRows(
        store,
        'INSERT OR REPLACE',
        'stocktake_spines',
        ['stocktake', 'run', 'part', 'digest', 'states', 'spines'],
        spines.slice(at, at + SPINES_AT_ONCE).map((s) => [id, s.run, s.part, s.digest, s.states, s.spines]),
        tx,
      ),
    );
}
