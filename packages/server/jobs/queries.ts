import type { Transaction } from '../store/database';
import type { Store } from '../store/store';

/** Marks a job as running, once more begun. */
export const countBegun = (store: Store, id: number, tx: Transaction): Promise<void> =>
  store.run("UPDATE jobs SET state = 'running', begun = begun + 1 WHERE id = :id", { id }, tx);

/** Keeps how far a job has come; the entry of the daybook that it had stays where none is given. */
export const keepCursor = (
  store: Store,
  kept: {
    readonly id: number;
    readonly cursor: string;
    readonly done: number;
    readonly total: number | null;
    readonly entry: number | null;
  },
  tx: Transaction,
): Promise<void> =>
  store.run(
    'UPDATE jobs SET cursor = :cursor, done = :done, total = :total, entry = COALESCE(:entry, entry), begun = 0 WHERE id = :id',
    { ...kept },
    tx,
  );

/** The job that is still doing an entry, or undoing it. */
export const jobOnEntry = (store: Store, entry: number): Promise<{ id: number } | undefined> =>
  store.row<{ id: number }>(
    `SELECT id FROM jobs WHERE state IN ('running', 'waiting')
       AND (entry = :entry OR (kind = 'undo' AND json_extract(work, '$.undoes') = :entry))`,
    { entry },
  );
