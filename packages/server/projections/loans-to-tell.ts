import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import type { Projection } from './projection';

/** Copies that went or came back of which the loans desk is still to be told. What it has been told is kept by nobody but the desk. */
export const loansToTell: Projection = {
  name: 'loans-to-tell',
  version: 1,
  of: ['withdrawn'],
  async apply(store, changes, tx) {
    const rows = changes
      .of('withdrawn')
      .flatMap(({ id, before, after }) =>
        (before ?? after) ? [[id, (after ?? before)!.copy.barcode, after ? 1 : 0, '']] : [],
      );
    await insertRows(
      store,
      'INSERT OR REPLACE',
      'loans_to_tell',
      ['row', 'barcode', 'is_gone', 'refused'],
      rows,
      tx,
    );
  },
  // What went before anybody was told stays untold: the desk has long been told by hand.
  rebuild: (store) => store.write((tx) => store.run('DELETE FROM loans_to_tell', {}, tx)),
};

/** A copy of which the loans desk is to be told. */
export interface LoanNotice {
  readonly row: number;
  readonly barcode: string;
  readonly isGone: 0 | 1;
}

/** The next copies of which the loans desk is to be told. */
export const nextNotices = (store: Store, atMost: number): Promise<LoanNotice[]> =>
  store.rows<LoanNotice>(
    "SELECT row, barcode, is_gone AS isGone FROM loans_to_tell WHERE refused = '' ORDER BY row LIMIT :atMost",
    { atMost },
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
          `${sql} WHERE (row, is_gone) IN (SELECT value ->> 0, value ->> 1 FROM json_each(:some))`,
          { some: JSON.stringify(some.map((n) => [n.row, n.isGone])) },
          tx,
        );
  });

/** How many copies the loans desk is to be told of, and how many of them it refused. */
export const countNotices = async (store: Store): Promise<{ waiting: number; refused: number }> =>
  (await store.row<{ waiting: number; refused: number }>(
    "SELECT COUNT(CASE WHEN refused = '' THEN 1 END) AS waiting, COUNT(CASE WHEN refused <> '' THEN 1 END) AS refused FROM loans_to_tell",
  )) ?? { waiting: 0, refused: 0 };
