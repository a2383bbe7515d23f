import type { Telling } from '@osier/core/withdrawals';
import type { ChangesByKind } from '../store/changes-by-kind';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import type { Projection } from './projection';

/** Of each row of the register whether it is gone, and whether the union catalogue has been told so. */
export const unionRows: Projection = {
  name: 'union-rows',
  version: 1,
  of: ['withdrawn', 'telling'],
  async apply(store, changes, tx) {
    await keepGone(store, changes, tx);
    for (const { before, after } of changes.of('telling')) {
      if (before) await unmark(store.within(tx), before, tx);
      if (after) await mark(store, after, tx);
    }
  },
  rebuild: (store) =>
    store.write(async (tx) => {
      const inside = store.within(tx);
      await store.run('DELETE FROM union_rows', {}, tx);
      await store.run(
        'INSERT INTO union_rows (row, is_gone, told) SELECT id, 1 - gone, 0 FROM withdrawn',
        {},
        tx,
      );
      for (const { value } of await inside.find('telling', { order: [['id', 'ASC']] }))
        await mark(store, value, tx);
    }),
};

async function keepGone(store: Store, changes: ChangesByKind, tx: Transaction): Promise<void> {
  const rows = changes.of('withdrawn').map(({ id, after }) => [id, after ? 1 : 0, 0]);
  const more = 'ON CONFLICT (row) DO UPDATE SET is_gone = excluded.is_gone';
  await insertRows(store, 'INSERT', 'union_rows', ['row', 'is_gone', 'told'], rows, tx, more);
}

/** Marks what a notice tells. */
async function mark(store: Store, { gone, back }: Telling, tx: Transaction): Promise<void> {
  await markRows(store, gone.rows, 1, tx);
  await markRows(store, back.rows, 0, tx);
}

const markRows = async (
  store: Store,
  rows: readonly number[],
  told: 0 | 1,
  tx: Transaction,
): Promise<void> =>
  rows.length === 0
    ? undefined
    : store.run(
        'UPDATE union_rows SET told = :told WHERE row IN (SELECT value FROM json_each(:rows))',
        { told, rows: JSON.stringify(rows) },
        tx,
      );

/** A notice is no more: its rows are as the notices that are left say, the last of each. */
async function unmark(inside: Store, { gone, back }: Telling, tx: Transaction): Promise<void> {
  const told = new Map([...gone.rows, ...back.rows].map((row) => [row, false]));
  for (const { value } of await inside.find('telling', { order: [['id', 'ASC']] })) {
    for (const row of value.gone.rows) if (told.has(row)) told.set(row, true);
    for (const row of value.back.rows) if (told.has(row)) told.set(row, false);
  }
  const rowsThat = (is: boolean) => [...told].flatMap(([row, isTold]) => (isTold === is ? [row] : []));
  await markRows(inside, rowsThat(true), 1, tx);
  await markRows(inside, rowsThat(false), 0, tx);
}

/** A holding of which the union catalogue is to be told: it went, or what was told as gone is back. */
export interface ToTell {
  readonly holding: number;
  readonly record: number;
  /** The first row of the register that is of it, and all of them as JSON. */
  readonly first: number;
  readonly rows: string;
  /** The register row (JSON) of one of its copies. */
  readonly value: string;
  readonly isGone: 0 | 1;
  /** Whether its record is in the catalogue. */
  readonly hasRecord: 0 | 1;
}

/** Holdings that have gone with their last copy and were not told of, and those told as gone that are back; behind a row, in the order of the register. */
export const toTell = (store: Store, after: number, atMost: number): Promise<ToTell[]> =>
  store.rows<ToTell>(
    `SELECT w.holding, w.record, MIN(w.id) AS first, json_group_array(w.id) AS rows, w.value, u.is_gone AS isGone,
        EXISTS (SELECT 1 FROM records r WHERE r.id = w.record) AS hasRecord
       FROM union_rows u CROSS JOIN withdrawn w ON w.id = u.row
      WHERE u.is_gone <> u.told AND EXISTS (SELECT 1 FROM holdings h WHERE h.id = w.holding) = (u.is_gone = 0)
      GROUP BY w.holding, u.is_gone HAVING MIN(w.id) > :after ORDER BY first LIMIT :atMost`,
    { after, atMost },
  );

/** Of how many holdings, and records, the union catalogue is to be told. */
export const countToTell = async (
  store: Store,
): Promise<{ readonly holdings: number; readonly records: number; readonly back: number }> =>
  (await store.row<{ holdings: number; records: number; back: number }>(
    `SELECT COUNT(DISTINCT CASE WHEN u.is_gone THEN w.holding END) AS holdings,
        COUNT(DISTINCT CASE WHEN u.is_gone AND NOT EXISTS (SELECT 1 FROM records r WHERE r.id = w.record) THEN w.record END) AS records,
        COUNT(DISTINCT CASE WHEN NOT u.is_gone THEN w.holding END) AS back
       FROM union_rows u CROSS JOIN withdrawn w ON w.id = u.row
      WHERE u.is_gone <> u.told AND EXISTS (SELECT 1 FROM holdings h WHERE h.id = w.holding) = (u.is_gone = 0)`,
  )) ?? { holdings: 0, records: 0, back: 0 };

/** How many of some rows of the register the union catalogue was told of as gone. */
export const countTold = async (store: Store, rows: readonly number[]): Promise<number> =>
  (
    await store.row<{ n: number }>(
      'SELECT COUNT(*) AS n FROM union_rows WHERE told = 1 AND row IN (SELECT value FROM json_each(:rows))',
      { rows: JSON.stringify(rows) },
    )
  )?.n ?? 0;
