import { useKeptState } from './kept-state';

/** Rows that are chosen together, kept over a reload until they are used or cleared. */
export interface Ticks {
  readonly ids: ReadonlySet<number>;
  readonly flip: (id: number) => void;
  readonly add: (ids: readonly number[]) => void;
  readonly clear: () => void;
}

const numbersIn = (kept: unknown): readonly number[] =>
  Array.isArray(kept) ? kept.filter((id) => typeof id === 'number') : [];

/** Ticks kept in this page under a name. */
export function useTicks(name: string): Ticks {
  const [kept, keep] = useKeptState(`ticks ${name}`, numbersIn);
  const set = (ids: readonly number[]) => keep(ids.length ? ids : null);
  return {
    ids: new Set(kept),
    flip: (id) => set(kept.includes(id) ? kept.filter((x) => x !== id) : [...kept, id]),
    add: (more) => set([...new Set([...kept, ...more])]),
    clear: () => set([]),
  };
}
