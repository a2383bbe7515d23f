import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import type { Projection } from './projection';

/** What of copies the loans desk is still to be told: what is withdrawn or back again, and what a stocktake found. What it has been told is kept by nobody but the desk. */
export const loansToTell: Projection = {
  name: 'loans-to-tell',
  version: 1,
  of: ['withdrawn', 'settled'],
  async apply(store, changes, tx) {
    const gone = changes
      .of('withdrawn')
      .flatMap(({ id, before, after }) =>
        (before ?? after)
          ? [['withdrawn', id, (after ?? before)!.copy.barcode, after ? 'gone' : 'back', '', '']]
          : [],
      );
    const settled = changes.of('settled');
    const found = settled.flatMap(({ id, after }) => {
      const says = after && SAYS[after.how];
      return says ? [['settled', id, after.code, says, after.seenOn ?? after.on, '']] : [];
    });
    await insertRows(
      store,
      'INSERT OR REPLACE',
      'loans_to_tell',
      ['source', 'row', 'barcode', 'says', 'day', 'refused'],
      [...gone, ...found],
      tx,
    );
    // What is undone before the desk was told is not told. A return that it has taken stays: the review of undoing says so.
    const undone = settled.flatMap(({ id, after }) => (after === null ? [id] : []));
    if (undone.length)
      await store.run(
        `DELETE FROM loans_to_tell WHERE source = 'settled' AND row IN (SELECT value FROM json_each(:undone))`,
        { undone: JSON.stringify(undone) },
        tx,
      );
  },
  // What went before anybody was told stays untold: the desk has long been told by hand.
  rebuild: (store) => store.write((tx) => store.run('DELETE FROM loans_to_tell', {}, tx)),
};

/** What is said of a copy: it was withdrawn, is in the catalogue again, is to be checked in, was found on the shelf. */
export type LoanNoticeSays = 'gone' | 'back' | 'return' | 'found';
const SAYS: Readonly<Record<string, LoanNoticeSays>> = { return: 'return', 'mark-found-tell': 'found' };

/** A copy of which the loans desk is to be told. */
export interface LoanNotice {
  readonly source: 'withdrawn' | 'settled';
  readonly row: number;
  readonly barcode: string;
  readonly says: LoanNoticeSays;
  /** ISO date on which it was scanned; '' where that is of no use. */
  readonly day: string;
}

/** The next copies of which the loans desk is to be told, one notice a copy; without `ofWithdrawn` only what a stocktake found. */
export const nextNotices = (store: Store, atMost: number, ofWithdrawn: boolean): Promise<LoanNotice[]> =>
  store.rows<LoanNotice>(
    `SELECT source, MIN(row) AS row, barcode, says, day FROM loans_to_tell WHERE refused = '' AND (:ofWithdrawn OR source = 'settled')
      GROUP BY barcode ORDER BY 1, 2 LIMIT :atMost`,
    { atMost, ofWithdrawn: ofWithdrawn ? 1 : 0 },
  );

/** Keeps what the desk has answered: what it took is told, what it refused is kept with that. */
export const noticesAnswered = (
  store: Store,
  took: readonly LoanNotice[],
  refused: readonly LoanNotice[],
): Promise<void> =>
  store.write(async (tx) => {
    // What has changed again since it was told stays to be told.
    for (const [sql, some] of [
      ['DELETE FROM loans_to_tell', took],
      ["UPDATE loans_to_tell SET refused = 'refused'", refused],
    ] as const)
      if (some.length)
        await store.run(
          `${sql} WHERE (source, row, says) IN (SELECT value ->> 0, value ->> 1, value ->> 2 FROM json_each(:some))`,
          { some: JSON.stringify(some.map((n) => [n.source, n.row, n.says])) },
          tx,
        );
  });

/** How many withdrawn copies the loans desk is to be told of, and how many of them it refused. */
export const countNotices = async (store: Store): Promise<{ waiting: number; refused: number }> =>
  (await store.row<{ waiting: number; refused: number }>(
    "SELECT COUNT(CASE WHEN refused = '' THEN 1 END) AS waiting, COUNT(CASE WHEN refused <> '' THEN 1 END) AS refused FROM loans_to_tell WHERE source = 'withdrawn'",
  )) ?? { waiting: 0, refused: 0 };

/** Of what a stocktake found: how many copies the loans desk is still to be told of, and the barcodes of those that it refused. */
export async function noticesOfStocktake(
  store: Store,
  stocktake: number,
): Promise<{ waiting: number; refused: string[] }> {
  const rows = await store.rows<{ barcode: string; refused: string }>(
    `SELECT n.barcode, n.refused FROM loans_to_tell n JOIN settled_findings s ON s.id = n.row
      WHERE n.source = 'settled' AND s.stocktake = :stocktake ORDER BY n.row`,
    { stocktake },
  );
  const refused = rows.flatMap((r) => (r.refused ? [r.barcode] : []));
  return { waiting: rows.length - refused.length, refused };
}

/** Of some settled findings of which the loans desk was to be told: how many it was told of. */
export const countNoticesTold = async (store: Store, settled: readonly number[]): Promise<number> =>
  (
    await store.row<{ n: number }>(
      `SELECT COUNT(*) AS n FROM settled_findings s WHERE s.id IN (SELECT value FROM json_each(:settled))
         AND s.value ->> 'how' IN ('return', 'mark-found-tell') AND NOT EXISTS (SELECT 1 FROM loans_to_tell n WHERE n.source = 'settled' AND n.row = s.id)`,
      { settled: JSON.stringify(settled) },
    )
  )?.n ?? 0;
