import { branchesOf, rangeKeys, shelfStatuses, type Stretch } from '@osier/core/stocktake';
import type { Transaction } from '../store/database';
import type { Store } from '../store/store';
import { addSeen, inFile, madeOnes } from './stocktake-scans';
import type { Projection } from './projection';

/**
 * How each stocktake stands: the copies of its stretch, fixed when it starts; the codes that were scanned, in their order; how many are
 * found. A scan or a file changes only what it touches. What is reckoned from them is brought up to date beside the acts
 * (stocktake-reckoning): an act marks the stocktakes it touches.
 */
export const stocktakes: Projection = {
  name: 'stocktakes',
  version: 2,
  of: ['stocktake', 'scanbatch', 'settled', 'copy', 'holding'],
  async apply(store, changes, tx) {
    for (const { id, before, after } of changes.of('stocktake')) {
      if (after === null) await forget(store, id, tx);
      else if (before === null) {
        await expect(store, id, after.stretch, tx);
        await countSeenAnew(store, id, tx);
      } else if (after.state === 'open') await reopened(store, id, tx);
    }
    for (const { id, before, after } of changes.of('scanbatch')) {
      if (before) await countSeenAnew(store, before.stocktake, tx);
      else if (after) {
        await addSeen(store, after.stocktake, [inFile(id, after)], tx);
        await markStocktakes(store, [after.stocktake], tx);
      }
    }
    const touched = changes
      .of('settled')
      .flatMap(({ before, after }) => [before, after].flatMap((s) => s?.stocktake ?? []));
    await markStocktakes(store, touched, tx);
    const copies = changes.of('copy');
    const holdings = changes.of('holding').map((h) => h.id);
    if (copies.length + holdings.length === 0) return;
    const barcodes = copies.flatMap(({ before, after }) => [before, after].flatMap((c) => c?.barcode ?? []));
    await markTouched(
      store,
      copies.map((c) => c.id),
      barcodes,
      holdings,
      tx,
    );
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

/** How a stocktake stands; `findings` and `result` (its report as JSON) are kept when it is closed. */
export interface StocktakeState {
  readonly stocktake: number;
  readonly expected: number;
  readonly found: number;
  readonly scans: number;
  readonly findings: number | null;
  readonly result: string | null;
}

/** How some stocktakes stand, without their reports. */
export const stocktakeStates = (store: Store): Promise<Omit<StocktakeState, 'result'>[]> =>
  store.rows<Omit<StocktakeState, 'result'>>(
    'SELECT stocktake, expected, found, scans, findings FROM stocktake_state',
  );

/** How one stocktake stands. */
export const stocktakeState = (store: Store, id: number): Promise<StocktakeState | undefined> =>
  store.row<StocktakeState>('SELECT * FROM stocktake_state WHERE stocktake = :id', { id });

/** Keeps the report of a stocktake for ever. */
export const keepReport = (
  store: Store,
  id: number,
  findings: number,
  report: unknown,
  tx: Transaction,
): Promise<void> =>
  store.run(
    'UPDATE stocktake_state SET findings = :findings, result = :report WHERE stocktake = :id',
    { id, findings, report: JSON.stringify(report) },
    tx,
  );

/** Marks stocktakes that are to be reckoned anew; after a scan that can wait until the scanning pauses. */
export const markStocktakes = (
  store: Store,
  ids: readonly number[],
  tx: Transaction,
  isScan = false,
): Promise<void> => {
  const now = Date.now();
  return ids.length === 0
    ? Promise.resolve()
    : store.run(
        `INSERT INTO stocktake_dirty (stocktake, stamp, since, scanned)
           SELECT DISTINCT s.id, 1, :now, :scanned FROM stocktakes s WHERE s.state <> 'closed' AND s.id IN (SELECT value FROM json_each(:ids))
           ON CONFLICT (stocktake) DO UPDATE SET stamp = stamp + 1, scanned = excluded.scanned`,
        { ids: JSON.stringify(ids), now, scanned: isScan ? now : 0 },
        tx,
      );
};

/** Marks the open stocktakes in which copies are expected or were scanned. */
async function markTouched(
  store: Store,
  copies: readonly number[],
  barcodes: readonly string[],
  holdings: readonly number[],
  tx: Transaction,
): Promise<void> {
  const open = await store.rows<{ id: number }>(`SELECT id FROM stocktakes WHERE state <> 'closed'`);
  if (open.length === 0) return;
  const rows = await store.rows<{ id: number }>(
    `SELECT s.id FROM stocktakes s WHERE s.state <> 'closed' AND (
        EXISTS (SELECT 1 FROM json_each(:copies) c CROSS JOIN stocktake_expected e ON e.copy = c.value AND e.stocktake = s.id)
        OR EXISTS (SELECT 1 FROM json_each(:barcodes) b CROSS JOIN stocktake_seen n ON n.stocktake = s.id AND n.code = b.value)
        OR EXISTS (SELECT 1 FROM json_each(:holdings) h CROSS JOIN copies c ON c.holding = h.value
          CROSS JOIN stocktake_seen n ON n.stocktake = s.id AND n.code = c.barcode))`,
    {
      copies: JSON.stringify(copies),
      barcodes: JSON.stringify(barcodes),
      holdings: JSON.stringify(holdings),
    },
  );
  await markStocktakes(
    store,
    rows.map((r) => r.id),
    tx,
  );
}

/** The copies of a stretch as an SQL condition on holdings `h` and copies `c`, with what it is given. */
export interface InStretch {
  readonly sql: string;
  readonly given: Record<string, unknown>;
}

/** The condition of a stretch, its call numbers in the order in which the library has its prefixes. */
export async function inStretch(store: Store, stretch: Stretch): Promise<InStretch> {
  const { from, to } = rangeKeys(stretch, (await store.house()).value.prefixOrder);
  return {
    sql: `h.branch IN (SELECT value FROM json_each(:branches))
          AND (:locations = '[]' OR h.location IN (SELECT value FROM json_each(:locations)))
          AND (:types = '[]' OR c.type IN (SELECT value FROM json_each(:types)))
          AND c.status NOT IN (SELECT value FROM json_each(:leftOut))
          AND (:from IS NULL OR h.shelf_key >= :from)
          AND (:to IS NULL OR h.shelf_key <= :to OR substr(h.shelf_key, 1, length(:to)) = :to)`,
    given: {
      branches: JSON.stringify(branchesOf(stretch)),
      locations: JSON.stringify(stretch.locations),
      types: JSON.stringify(stretch.types),
      leftOut: JSON.stringify(stretch.leftOut ?? []),
      from,
      to,
    },
  };
}

/** A copy of a stretch that nobody has looked at yet is one of a shelf that was not walked; one that is not expected is accounted for. */
const [NOT_WALKED, OTHER] = [2, 5];

/** Fixes the copies of a stretch with their places, and which of them are expected on the shelf. */
async function expect(store: Store, id: number, stretch: Stretch, tx: Transaction): Promise<void> {
  const { sql, given } = await inStretch(store, stretch);
  const statuses = JSON.stringify(shelfStatuses((await store.house()).value));
  const counts = 'c.status IN (SELECT value FROM json_each(:statuses))';
  await store.run(
    `INSERT INTO stocktake_expected (stocktake, copy, barcode, shelf_key, branch, location, type, call_number, title, author, record, counts, outcome)
       SELECT :id, c.id, c.barcode, h.shelf_key, h.branch, h.location, c.type, h.call_number, ifnull(r.title, ''), ifnull(r.author, ''), h.record,
         ${counts}, CASE WHEN ${counts} THEN ${NOT_WALKED} ELSE ${OTHER} END
         FROM holdings h JOIN copies c ON c.holding = h.id LEFT JOIN record_rows r ON r.id = h.record WHERE ${sql}`,
    { id, statuses, ...given },
    tx,
  );
}

/** One that is open again has no report, and is reckoned as it stands. */
async function reopened(store: Store, id: number, tx: Transaction): Promise<void> {
  await store.run(
    'UPDATE stocktake_state SET findings = NULL, result = NULL WHERE stocktake = :id',
    { id },
    tx,
  );
  await markStocktakes(store, [id], tx);
}

async function forget(store: Store, id: number, tx: Transaction): Promise<void> {
  for (const table of ['expected', 'seen', 'state', 'runs', 'findings', 'spines', 'loans', 'dirty'])
    await store.run(`DELETE FROM stocktake_${table} WHERE stocktake = :id`, { id }, tx);
}

/** Counts all that was scanned for a stocktake from the beginning: files first, then scans as they came. */
async function countSeenAnew(store: Store, id: number, tx: Transaction): Promise<void> {
  for (const table of ['seen', 'runs'])
    await store.run(`DELETE FROM stocktake_${table} WHERE stocktake = :id`, { id }, tx);
  await store.run(
    `INSERT INTO stocktake_state (stocktake, expected, found, scans)
       VALUES (:id, (SELECT COUNT(*) FROM stocktake_expected WHERE stocktake = :id AND counts = 1), 0, 0)
       ON CONFLICT (stocktake) DO UPDATE SET expected = excluded.expected, found = 0, scans = 0`,
    { id },
    tx,
  );
  for (const file of await store.find('scanbatch', { where: { stocktake: id }, order: [['id', 'ASC']] }))
    await addSeen(store, id, [inFile(file.id, file.value)], tx);
  const scans = await store
    .table('scans')
    .find({ where: { purpose: 'stocktake', work: id }, order: [['id', 'ASC']] });
  await addSeen(store, id, madeOnes(scans), tx);
  await markStocktakes(store, [id], tx);
}
