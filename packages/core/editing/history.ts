import type { MarcRecord } from '../marc';
import { applyTransaction, invertTransaction, type EditTransaction } from './transaction';

/** What was meant by an edit: the safe fix of a check, or a text replaced by another wherever it stood. */
export type EditMeaning =
  { readonly fixOf: string } | { readonly find: string; readonly by: string; readonly matchCase: boolean };

/** What was done in one go: its steps, and where it is known what was meant by them. */
export interface EditDone {
  readonly transaction: EditTransaction;
  readonly meant?: EditMeaning | undefined;
}

/** What was done in editing a record, and what of it was undone and can be done again; the last stands last. */
export interface EditHistory {
  readonly done: readonly EditDone[];
  readonly undone: readonly EditDone[];
}

/** A record with the history of its editing. */
export interface Edited {
  readonly record: MarcRecord;
  readonly history: EditHistory;
}

/** Nothing was done yet. */
export const NO_HISTORY: EditHistory = { done: [], undone: [] };

/** So many steps back are kept. */
const MOST = 200;

/** The record after a transaction, which is kept in the history; what was undone cannot be done again. */
export const edited = (
  { record, history }: Edited,
  transaction: EditTransaction,
  meant?: EditMeaning,
): Edited =>
  transaction.length === 0
    ? { record, history }
    : {
        record: applyTransaction(record, transaction),
        history: { done: [...history.done, { transaction, meant }].slice(-MOST), undone: [] },
      };

/** A record after all that was done to it. Throws a RangeError when something was done to another one. */
export const afterAll = (record: MarcRecord, done: readonly EditDone[]): MarcRecord =>
  done.reduce((r, { transaction }) => applyTransaction(r, transaction), record);

/** The record before its last transaction; null when nothing was done. */
export function undone({ record, history: { done, undone: later } }: Edited): Edited | null {
  const last = done.at(-1);
  if (!last) return null;
  return {
    record: applyTransaction(record, invertTransaction(last.transaction)),
    history: { done: done.slice(0, -1), undone: [...later, last] },
  };
}

/** The record with the transaction that was undone last; null when nothing was undone. */
export function redone({ record, history: { done, undone: later } }: Edited): Edited | null {
  const last = later.at(-1);
  if (!last) return null;
  return {
    record: applyTransaction(record, last.transaction),
    history: { done: [...done, last], undone: later.slice(0, -1) },
  };
}
