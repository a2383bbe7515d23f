import { useState } from 'react';

/** Rows that are chosen together, kept over a reload until they are used or cleared. */
export interface Ticks {
  readonly ids: ReadonlySet<number>;
  readonly flip: (id: number) => void;
  readonly add: (ids: readonly number[]) => void;
  readonly clear: () => void;
}

function read(key: string): ReadonlySet<number> {
  try {
    const kept = JSON.parse(sessionStorage.getItem(key) ?? '[]') as unknown;
    return new Set(Array.isArray(kept) ? kept.filter((id) => typeof id === 'number') : []);
  } catch {
    return new Set();
  }
}

/** Ticks kept in this page under a name. */
export function useTicks(name: string): Ticks {
  const key = `osier-ticks ${name}`;
  const [held, setHeld] = useState(() => ({ key, ids: read(key) }));
  const ids = held.key === key ? held.ids : read(key);
  const set = (next: ReadonlySet<number>) => {
    setHeld({ key, ids: next });
    if (next.size) sessionStorage.setItem(key, JSON.stringify([...next]));
    else sessionStorage.removeItem(key);
  };
  return {
    ids,
    flip: (id) => set(ids.has(id) ? new Set([...ids].filter((x) => x !== id)) : new Set([...ids, id])),
    add: (more) => set(new Set([...ids, ...more])),
    clear: () => set(new Set()),
  };
}
