import { NO_HISTORY, type EditHistory } from '@osier/core/editing';
import { create } from 'zustand';

interface Histories {
  readonly of: Readonly<Record<string, EditHistory>>;
  set(key: string, history: EditHistory | null): void;
}

/** What was done and undone in the records that are edited on this page, by the key of their draft. */
export const useHistories = create<Histories>((set) => ({
  of: {},
  set: (key, history) =>
    set(({ of: { [key]: _, ...rest } }) => ({ of: history ? { ...rest, [key]: history } : rest })),
}));

export const editHistoryOf = (key: string): EditHistory => useHistories.getState().of[key] ?? NO_HISTORY;
