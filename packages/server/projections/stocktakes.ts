import { rangeKeys, type Stretch } from '@osier/core/stocktake';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import type { Projection } from './projection';

/**
 * How each stocktake stands: the copies it expects, fixed when it starts; the codes that were scanned, in their order; how
 * many are found. A scan or a file changes only what it touches.
 */
export const stocktakes: Projection = {
  name: 'stocktakes',
  version: 1,
  of: ['stocktake', 'scanbatch'],
  async apply(store, changes, tx) {
    for (const { id, before, after } of changes.of('stocktake')) {
      if (after === null) await forget(store, id, tx);
      else if (before === null) {
        await expect(store, id, after.stretch, tx);
        await countSeenAnew(store, id, tx);
      } else if (after.state === 'open') await forgetResult(store, id, tx);
    }
    for (const { id, before, after } of changes.of('scanbatch')) {
      if (before) await countSeenAnew(store, before.stocktake, tx);
      else if (after) await addSeen(store, after.stocktake, inFile(id, after.codes), tx);
    }
  },
  async rebuild(store) {
    for (const { id, value } of await store.find('stocktake'))
      await store.write(async (tx) => {
        const inside = store.within(tx);
        const known = await stocktakeState(inside, id);
        // What was expected when it started is not known of an old stocktake: it expects what stands there now.
        if (!known) await expect(inside, id, value.stretch, tx);
        await countSeenAnew(inside, id, tx);
      });
  },
};

/** How a stocktake stands; `findings` and `result` (JSON) are kept when it is closed. */
export interface StocktakeState {
  readonly stocktake: number;
  readonly expected: number;
  readonly found: number;
  readonly scans: number;
  readonly findings: number | null;
  readonly result: string | null;
}

/** How some stocktakes stand, without their results; all when none are named. */
export const stocktakeStates = (store: Store): Promise<Omit<StocktakeState, 'result'>[]> =>
  store.rows<Omit<StocktakeState, 'result'>>(
    'SELECT stocktake, expected, found, scans, findings FROM stocktake_state',
  );

/** How one stocktake stands. */
export const stocktakeState = (store: Store, id: number): Promise<StocktakeState | undefined> =>
  store.row<StocktakeState>('SELECT * FROM stocktake_state WHERE stocktake = :id', { id });

/** Fixes the copies that a stocktake expects: those of its stretch that are not known to be missing or lost. */
async function expect(store: Store, id: number, stretch: Stretch, tx: Transaction): Promise<void> {
  const { from, to } = rangeKeys(stretch);
  await store.run(
    `INSERT INTO stocktake_expected (stocktake, copy, barcode, shelf_key)
       SELECT :id, c.id, c.barcode, h.shelf_key FROM holdings h JOIN copies c ON c.holding = h.id
        WHERE h.branch = :branch AND c.status NOT IN ('missing', 'lost', 'on order')
          AND (:locations = '[]' OR h.location IN (SELECT value FROM json_each(:locations)))
          AND (:types = '[]' OR c.type IN (SELECT value FROM json_each(:types)))
          AND (:from IS NULL OR h.shelf_key >= :from)
          AND (:to IS NULL OR h.shelf_key <= :to OR substr(h.shelf_key, 1, length(:to)) = :to)`,
    {
      id,
      branch: stretch.branch,
      locations: JSON.stringify(stretch.locations),
      types: JSON.stringify(stretch.types),
      from,
      to,
    },
    tx,
  );
}

async function forget(store: Store, id: number, tx: Transaction): Promise<void> {
  for (const table of ['expected', 'seen', 'state'])
    await store.run(`DELETE FROM stocktake_${table} WHERE stocktake = :id`, { id }, tx);
}

const forgetResult = (store: Store, id: number, tx: Transaction): Promise<void> =>
  store.run('UPDATE stocktake_state SET findings = NULL, result = NULL WHERE stocktake = :id', { id }, tx);

/** Counts all that was scanned for a stocktake from the beginning: files first, then scans as they came. */
async function countSeenAnew(store: Store, id: number, tx: Transaction): Promise<void> {
  await store.run('DELETE FROM stocktake_seen WHERE stocktake = :id', { id }, tx);
  await store.run(
    `INSERT INTO stocktake_state (stocktake, expected, found, scans)
       VALUES (:id, (SELECT COUNT(*) FROM stocktake_expected WHERE stocktake = :id), 0, 0)
       ON CONFLICT (stocktake) DO UPDATE SET expected = excluded.expected, found = 0, scans = 0`,
    { id },
    tx,
  );
  const files = await store.find('scanbatch', { where: { stocktake: id } });
  const scans = await store.table('scans').find({ where: { purpose: 'stocktake', work: id } });
  const all = [...files.flatMap((f) => inFile(f.id, f.value.codes)), ...scans.map(asScanned)];
  await addSeen(store, id, all, tx);
}

/** A code that was scanned, with its place in the walk: a number that grows. */
export interface Seen {
  readonly code: string;
  readonly place: number;
}

/** More codes than a file may have. */
const IN_A_FILE = 1_000_000;
/** Files come before scans that were made one by one. */
const BEHIND_FILES = 4e15;

/** The codes of a file, in their order. */
const inFile = (file: number, codes: readonly string[]): Seen[] =>
  codes.map((code, i) => ({ code, place: file * IN_A_FILE + i }));

/** A scan that was made by itself. */
export const asScanned = ({ id, code }: { readonly id: number; readonly code: string }): Seen => ({
  code,
  place: BEHIND_FILES + id,
});

/** Adds scans to what was seen in a stocktake. */
export async function addSeen(
  store: Store,
  id: number,
  scans: readonly Seen[],
  tx: Transaction,
): Promise<void> {
  if (scans.length === 0) return;
  const seen = new Map<string, { first: number; times: number }>();
  for (const { code, place } of scans) {
    const known = seen.get(code);
    seen.set(code, { first: Math.min(known?.first ?? place, place), times: (known?.times ?? 0) + 1 });
  }
  const found = await store.row<{ n: number }>(
    `SELECT COUNT(*) AS n FROM json_each(:codes) w CROSS JOIN stocktake_expected e ON e.stocktake = :id AND e.barcode = w.value
      WHERE NOT EXISTS (SELECT 1 FROM stocktake_seen s WHERE s.stocktake = :id AND s.code = w.value)`,
    { id, codes: JSON.stringify([...seen.keys()]) },
  );
  const rows = [...seen].map(([code, { first, times }]) => [id, code, first, times]);
  const again =
    'ON CONFLICT (stocktake, code) DO UPDATE SET times = times + excluded.times, first = MIN(first, excluded.first)';
  await insertRows(
    store,
    'INSERT',
    'stocktake_seen',
    ['stocktake', 'code', 'first', 'times'],
    rows,
    tx,
    again,
  );
  await store.run(
    'UPDATE stocktake_state SET found = found + :found, scans = scans + :scans WHERE stocktake = :id',
    { id, found: found?.n ?? 0, scans: scans.length },
    tx,
  );
}

/** Keeps the result of a stocktake for ever. */
export const keepResult = (
  store: Store,
  id: number,
  findings: number,
  result: unknown,
  tx: Transaction,
): Promise<void> =>
  store.run(
    'UPDATE stocktake_state SET findings = :findings, result = :result WHERE stocktake = :id',
    { id, findings, result: JSON.stringify(result) },
    tx,
  );

/** A copy as a stocktake knows it, but for its being on loan. */
export interface ShelfRow {
  readonly copyId: number;
  readonly barcode: string;
  readonly status: string;
  readonly type: string;
  readonly lastSeen: string;
  readonly branch: string;
  readonly location: string;
  readonly callNumber: string;
  readonly shelfKey: string;
  readonly recordId: number;
  readonly title: string;
}
const SHELF = `c.id AS copyId, c.barcode, c.status, c.type, c.last_seen AS lastSeen, h.branch, h.location, h.call_number AS callNumber,
  h.shelf_key AS shelfKey, r.id AS recordId, r.title FROM copies c JOIN holdings h ON h.id = c.holding JOIN records r ON r.id = h.record`;

/** The copies that a stocktake expects and those that were scanned in it. */
export const shelfOf = (store: Store, id: number): Promise<ShelfRow[]> =>
  store.rows<ShelfRow>(
    `SELECT ${SHELF} WHERE c.id IN (SELECT copy FROM stocktake_expected WHERE stocktake = :id
       UNION SELECT s.id FROM stocktake_seen n JOIN copies s ON s.barcode = n.code WHERE n.stocktake = :id)`,
    { id },
  );

/** The copy with a barcode, as a stocktake knows it. */
export const shelfCopy = (store: Store, barcode: string): Promise<ShelfRow | undefined> =>
  store.row<ShelfRow>(`SELECT ${SHELF} WHERE c.barcode = :barcode`, { barcode });

/** The numbers of the copies that a stocktake expects. */
export async function expectedCopies(store: Store, id: number): Promise<number[]> {
  const rows = await store.rows<{ copy: number }>(
    'SELECT copy FROM stocktake_expected WHERE stocktake = :id',
    { id },
  );
  return rows.map((r) => r.copy);
}

/** The codes that were scanned, each once, in the order of the walk. */
export async function codesSeen(store: Store, id: number): Promise<string[]> {
  const rows = await store.rows<{ code: string }>(
    'SELECT code FROM stocktake_seen WHERE stocktake = :id ORDER BY first',
    { id },
  );
  return rows.map((r) => r.code);
}

/** The numbers of the copies whose codes were scanned. */
export async function copiesSeen(store: Store, id: number): Promise<number[]> {
  const rows = await store.rows<{ copy: number }>(
    'SELECT c.id AS copy FROM stocktake_seen n JOIN copies c ON c.barcode = n.code WHERE n.stocktake = :id',
    { id },
  );
  return rows.map((r) => r.copy);
}

/** Codes that were scanned and are of no copy, with when they were withdrawn. */
export const withdrawnSeen = (store: Store, id: number): Promise<{ code: string; on: string }[]> =>
  store.rows<{ code: string; on: string }>(
    `SELECT n.code, MAX(w.withdrawn_on) AS "on" FROM stocktake_seen n JOIN withdrawn w ON w.barcode = n.code AND w.gone = 0
      WHERE n.stocktake = :id GROUP BY n.code`,
    { id },
  );

/** How often a code was scanned in a stocktake. */
export const timesSeen = async (store: Store, id: number, code: string): Promise<number> =>
  (
    await store.row<{ times: number }>(
      'SELECT times FROM stocktake_seen WHERE stocktake = :id AND code = :code',
      { id, code },
    )
  )?.times ?? 0;

/** The expected copy of the highest place in the walk: the last code scanned for the first time that a copy expected here has. */
export const lastExpectedSeen = (store: Store, id: number): Promise<{ barcode: string } | undefined> =>
  store.row<{ barcode: string }>(
    `SELECT n.code AS barcode FROM stocktake_seen n WHERE n.stocktake = :id
        AND EXISTS (SELECT 1 FROM stocktake_expected e WHERE e.stocktake = :id AND e.barcode = n.code) ORDER BY n.first DESC LIMIT 1`,
    { id },
  );

/** The expected copy that stands next behind a place and was not scanned yet. */
export const nextExpected = (
  store: Store,
  id: number,
  shelfKey: string,
  barcode: string,
): Promise<{ barcode: string; callNumber: string; title: string } | undefined> =>
  store.row<{ barcode: string; callNumber: string; title: string }>(
    `SELECT e.barcode, h.call_number AS callNumber, r.title FROM stocktake_expected e JOIN copies c ON c.id = e.copy JOIN holdings h ON h.id = c.holding
       JOIN records r ON r.id = h.record
      WHERE e.stocktake = :id AND (e.shelf_key, e.barcode) > (:shelfKey, :barcode)
        AND NOT EXISTS (SELECT 1 FROM stocktake_seen n WHERE n.stocktake = :id AND n.code = e.barcode)
      ORDER BY e.shelf_key, e.barcode LIMIT 1`,
    { id, shelfKey, barcode },
  );

/** Which of some codes are of copies that are expected and were not scanned. */
export async function expectedUnseen(store: Store, id: number, codes: readonly string[]): Promise<string[]> {
  const rows = await store.rows<{ barcode: string }>(
    `SELECT e.barcode FROM json_each(:codes) w CROSS JOIN stocktake_expected e ON e.stocktake = :id AND e.barcode = w.value
      WHERE NOT EXISTS (SELECT 1 FROM stocktake_seen n WHERE n.stocktake = :id AND n.code = e.barcode)`,
    { id, codes: JSON.stringify(codes) },
  );
  return rows.map((r) => r.barcode);
}
