import { create } from 'zustand';

/** What was done last, for the status line. */
export interface LastAct {
  readonly sentence: string;
  readonly entry: number | null;
  readonly tone: 'done' | 'problem';
}

interface Shell {
  readonly folded: boolean;
  readonly last: LastAct | null;
  /** What was done on this page since it was opened, the last first. */
  readonly acts: readonly LastAct[];
  readonly keysShown: boolean;
  /** The entry whose taking back is being reviewed. */
  readonly undoing: number | null;
  fold(): void;
  say(sentence: string, entry?: number | null): void;
  complain(sentence: string): void;
  /** Tells in the status panel what was not done by the person; the last act stays where it is. */
  note(sentence: string): void;
  showKeys(shown: boolean): void;
  undo(entry: number | null): void;
}

const REMEMBERED = 12;
const told = ({ acts }: Shell, last: LastAct) => ({ last, acts: [last, ...acts].slice(0, REMEMBERED) });

export const useShell = create<Shell>((set) => ({
  folded: localStorage.getItem('osier-rail') === 'folded',
  last: null,
  acts: [],
  keysShown: false,
  undoing: null,
  fold: () =>
    set((s) => {
      localStorage.setItem('osier-rail', s.folded ? 'open' : 'folded');
      return { folded: !s.folded };
    }),
  say: (sentence, entry = null) => set((s) => told(s, { sentence, entry, tone: 'done' })),
  note: (sentence) => set((s) => ({ acts: told(s, { sentence, entry: null, tone: 'done' }).acts })),
  complain: (sentence) => set((s) => told(s, { sentence, entry: null, tone: 'problem' })),
  showKeys: (keysShown) => set({ keysShown }),
  undo: (undoing) => set({ undoing }),
}));
