import { afterAll, NO_HISTORY, type EditDone, type EditHistory } from '@osier/core/editing';
import { compareRecords, differs, type MarcRecord } from '@osier/core/marc';
import { create } from 'zustand';

/** What was done to a record until it was saved as it is. */
export interface DoneToRecord {
  readonly before: MarcRecord;
  readonly done: readonly EditDone[];
}

interface Histories {
  readonly of: Readonly<Record<string, EditHistory>>;
  /** What is saved, by the key of its draft. */
  readonly saved: Readonly<Record<string, DoneToRecord>>;
  set(key: string, history: EditHistory | null): void;
  /** The draft of a record was saved: what was done to it is kept behind what was saved before. */
  save(key: string, before: MarcRecord): void;
}

/** What was done and undone in the records that are edited on this page, by the key of their draft. */
export const useHistories = create<Histories>((set) => ({
  of: {},
  saved: {},
  set: (key, history) =>
    set(({ of: { [key]: _, ...rest } }) => ({ of: history ? { ...rest, [key]: history } : rest })),
  save: (key, before) =>
    set(({ of, saved }) => {
      const done = of[key]?.done ?? [];
      const earlier = saved[key];
      const goesOn = earlier !== undefined && leadsTo(earlier, before);
      const now = goesOn ? { ...earlier, done: [...earlier.done, ...done] } : { before, done };
      return { saved: { ...saved, [key]: now } };
    }),
}));

export const editHistoryOf = (key: string): EditHistory => useHistories.getState().of[key] ?? NO_HISTORY;

/** Whether what was done makes that record: another page may have edited it too, or the history be longer than what is kept. */
export function leadsTo({ before, done }: DoneToRecord, record: MarcRecord): boolean {
  try {
    return !differs(compareRecords(afterAll(before, done), record));
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}
