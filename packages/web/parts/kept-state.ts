import { useState } from 'react';

const keyOf = (name: string) => `osier-kept ${name}`;

/** What is kept under a name in this page, over a reload; null for nothing. */
export function readKept(name: string): unknown {
  try {
    const kept: unknown = JSON.parse(sessionStorage.getItem(keyOf(name)) ?? 'null');
    return kept;
  } catch {
    return null;
  }
}

/** Keeps a value under a name; null for nothing any more. */
export function writeKept(name: string, value: unknown): void {
  if (value === null) sessionStorage.removeItem(keyOf(name));
  else sessionStorage.setItem(keyOf(name), JSON.stringify(value));
}

/** A state that outlasts a reload of the page. `read` makes it from what was kept, which may be anything. */
export function useKeptState<T>(
  name: string,
  read: (kept: unknown) => T,
): readonly [T, (next: T | null) => void] {
  const [held, setHeld] = useState(() => ({ name, value: read(readKept(name)) }));
  const value = held.name === name ? held.value : read(readKept(name));
  return [
    value,
    (next) => {
      writeKept(name, next);
      setHeld({ name, value: next ?? read(null) });
    },
  ];
}
