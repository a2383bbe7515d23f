import { rollNumber, serialIn, spoiledRuns, type RollUse } from '@osier/core/barcodes';
import type { StoredObject } from '@osier/core/kinds';
import type { ChangesByKind } from '../store/changes-by-kind';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import type { Projection } from './projection';

const COLUMNS = ['number', 'roll', 'serial'];

/** The ledger of label rolls: which numbers of each are or were on a copy. */
export const rollNumbers: Projection = {
  name: 'label-rolls',
  version: 1,
  of: ['roll', 'copy', 'withdrawn'],
  apply: keepRollNumbers,
  rebuild: (store) => store.write((tx) => countAllRolls(store.within(tx), tx)),
};

/** Brings the ledger of label rolls in line with copies, the register and the rolls themselves that were written. */
async function keepRollNumbers(store: Store, byKind: ChangesByKind, tx: Transaction): Promise<void> {
  const changed = byKind.of('roll');
  if (changed.length) {
    for (const { id } of changed) await store.run('DELETE FROM roll_numbers WHERE roll = :id', { id }, tx);
    for (const { id, after } of changed)
      if (after !== null) await countRoll(store, { id, version: 0, value: after }, tx);
  }
  const barcodes = [
    ...byKind.of('copy').flatMap(({ before, after }) => [before?.barcode ?? '', after?.barcode ?? '']),
    ...byKind.of('withdrawn').map(({ before, after }) => (after ?? before)?.copy.barcode ?? ''),
  ];
  const touched = [...new Set(barcodes)].filter(Boolean);
  if (touched.length === 0) return;
  const rolls = await store.find('roll');
  const numbers = touched.flatMap((barcode) => {
    const roll = rolls.find((r) => serialIn(r.value, barcode) !== null);
    return roll ? [[barcode, roll.id, serialIn(roll.value, barcode)]] : [];
  });
  if (numbers.length === 0) return;
  const of = JSON.stringify(numbers.map(([number]) => number));
  const inUse = await store.rows<{ number: string }>(
    `SELECT w.value AS number FROM json_each(:of) w WHERE EXISTS (SELECT 1 FROM copies c WHERE c.barcode = w.value)
       OR EXISTS (SELECT 1 FROM withdrawn g WHERE g.barcode = w.value AND g.gone = 0)`,
    { of },
  );
  const used = new Set(inUse.map((u) => u.number));
  await store.run('DELETE FROM roll_numbers WHERE number IN (SELECT value FROM json_each(:of))', { of }, tx);
  await insertRows(
    store,
    'INSERT',
    'roll_numbers',
    COLUMNS,
    numbers.filter(([number]) => used.has(String(number))),
    tx,
  );
}

/** Enters all numbers of a roll that are or were on a copy. One with a wrong check digit is none of the roll. */
async function countRoll(
  store: Store,
  { id, value: roll }: StoredObject<'roll'>,
  tx: Transaction,
): Promise<void> {
  const span = { from: rollNumber(roll, roll.from), to: rollNumber(roll, roll.to), length: roll.length };
  const rows = await store.rows<{ barcode: string }>(
    `SELECT barcode FROM copies WHERE barcode BETWEEN :from AND :to AND length(barcode) = :length
     UNION SELECT barcode FROM withdrawn WHERE barcode BETWEEN :from AND :to AND length(barcode) = :length AND gone = 0`,
    span,
  );
  const numbers = rows.flatMap(({ barcode }) => {
    const serial = serialIn(roll, barcode);
    return serial === null ? [] : [[barcode, id, serial]];
  });
  await insertRows(store, 'INSERT OR IGNORE', 'roll_numbers', COLUMNS, numbers, tx);
}

/** Makes the ledger anew, for a store from before there was one. */
async function countAllRolls(store: Store, tx: Transaction): Promise<void> {
  await store.run('DELETE FROM roll_numbers', {}, tx);
  for (const roll of await store.find('roll')) await countRoll(store, roll, tx);
}

/** What of a roll is or was on a copy. */
export async function rollUse(store: Store, { id, value }: StoredObject<'roll'>): Promise<RollUse> {
  const of = { roll: id };
  const runs = spoiledRuns(value);
  const [count, row, spoiled] = await Promise.all([
    store.row<{ used: number }>('SELECT COUNT(*) AS used FROM roll_numbers WHERE roll = :roll', of),
    store.row<{ last: number | null }>('SELECT MAX(serial) AS last FROM roll_numbers WHERE roll = :roll', of),
    runs.length
      ? store.row<{ n: number }>(
          `SELECT COUNT(*) AS n FROM json_each(:runs) r CROSS JOIN roll_numbers u ON u.roll = :roll AND u.serial BETWEEN r.value ->> 'from' AND r.value ->> 'to'`,
          { ...of, runs: JSON.stringify(runs) },
        )
      : undefined,
  ]);
  return { used: count?.used ?? 0, last: row?.last ?? null, usedSpoiled: spoiled?.n ?? 0 };
}

/** The numbers of a roll that are used, in their order. */
export async function usedNumbers(store: Store, roll: number): Promise<string[]> {
  const rows = await store.rows<{ number: string }>(
    'SELECT number FROM roll_numbers WHERE roll = :roll ORDER BY serial',
    { roll },
  );
  return rows.map((r) => r.number);
}
