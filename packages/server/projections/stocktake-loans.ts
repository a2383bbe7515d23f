import type { LoanAnswers } from '../loans/ports';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import { markStocktakes } from './stocktakes';

/** Copies about which the loans desk is to be asked next, of one open stocktake: those that nobody asked for, then those asked for long ago and not seen. */
export async function toAsk(
  store: Store,
  atMost: number,
  old: string,
): Promise<{ stocktake: number; barcodes: readonly string[] } | null> {
  for (const { id } of await store.rows<{ id: number }>(
    `SELECT id FROM stocktakes WHERE state <> 'closed' ORDER BY id`,
  )) {
    const rows = await store.rows<{ barcode: string }>(
      `SELECT barcode FROM (SELECT n.code AS barcode FROM stocktake_seen n CROSS JOIN copies c ON c.barcode = n.code WHERE n.stocktake = :id
           AND NOT EXISTS (SELECT 1 FROM stocktake_loans l WHERE l.stocktake = :id AND l.barcode = n.code) LIMIT :atMost)
       UNION SELECT barcode FROM (SELECT e.barcode FROM stocktake_expected e WHERE e.stocktake = :id AND NOT EXISTS (SELECT 1 FROM stocktake_loans l
           WHERE l.stocktake = :id AND l.barcode = e.barcode AND (l.at >= :old OR EXISTS (SELECT 1 FROM stocktake_seen n WHERE n.stocktake = :id AND n.code = e.barcode))) LIMIT :atMost)
       LIMIT :atMost`,
      { id, atMost, old },
    );
    if (rows.length) return { stocktake: id, barcodes: rows.map((r) => r.barcode) };
  }
  return null;
}

/** Copies of a stretch behind a barcode that nobody scanned. */
export const unseenBehind = async (
  store: Store,
  id: number,
  after: string,
  atMost: number,
): Promise<readonly string[]> =>
  (
    await store.rows<{ barcode: string }>(
      `SELECT e.barcode FROM stocktake_expected e WHERE e.stocktake = :id AND e.barcode > :after
          AND NOT EXISTS (SELECT 1 FROM stocktake_seen n WHERE n.stocktake = :id AND n.code = e.barcode) ORDER BY e.barcode LIMIT :atMost`,
      { id, after, atMost },
    )
  ).map((r) => r.barcode);

/**
 * Keeps what the loans desk said of copies, also of those that it does not know, so that they are not asked for again and again; gives how many
 * there were. Of a desk that is silent nothing is kept.
 */
export async function keepLoans(
  store: Store,
  id: number,
  barcodes: readonly string[],
  said: LoanAnswers,
): Promise<number> {
  if (!said.heard || barcodes.length === 0) return 0;
  const at = new Date().toISOString();
  const rows = barcodes.map((barcode) => {
    const { state, due } = said.of(barcode);
    return [id, barcode, state, due, at];
  });
  await store.write(async (tx: Transaction) => {
    const before = await loansOut(store.within(tx), id, barcodes);
    await insertRows(
      store,
      'INSERT OR REPLACE',
      'stocktake_loans',
      ['stocktake', 'barcode', 'state', 'due', 'at'],
      rows,
      tx,
    );
    if ((await loansOut(store.within(tx), id, barcodes)) === before) return;
    await markStocktakes(store, [id], tx);
    tx.whenStored(() => store.feed.tell({ entry: null, kinds: { stocktake: [id] } }));
  });
  return rows.length;
}

/** Which of some copies are on loan, as one text. */
const loansOut = async (store: Store, id: number, barcodes: readonly string[]): Promise<string> =>
  (
    await store.row<{ codes: string | null }>(
      `SELECT group_concat(barcode) AS codes FROM (SELECT l.barcode FROM stocktake_loans l WHERE l.stocktake = :id AND l.state = 'on loan'
         AND l.barcode IN (SELECT value FROM json_each(:barcodes)) ORDER BY l.barcode)`,
      { id, barcodes: JSON.stringify(barcodes) },
    )
  )?.codes ?? '';

/** About how many copies of a stocktake the loans desk has been heard. */
export const countAsked = async (store: Store, id: number): Promise<number> =>
  (
    await store.row<{ n: number }>(
      "SELECT COUNT(*) AS n FROM stocktake_loans WHERE stocktake = :id AND state <> 'not known'",
      { id },
    )
  )?.n ?? 0;
