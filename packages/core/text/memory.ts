/**
 * What pure functions gave before. It belongs to one session of work (a file being read, records being checked) and is passed to
 * what works in it, so that nothing is kept beyond the session.
 */
export interface Memory {
  /** What `work` gives for `key`: worked out once. The same function must be given each time, not a new one. */
  of<K, T>(work: (key: K) => T, key: K): T;
}

/** Begins with nothing. Of each function at most `most` results are kept; further ones are worked out each time. */
export function memory(most = 20_000): Memory {
  const known = new Map<unknown, Map<unknown, unknown>>();
  // One function is mostly asked several times in turn.
  let last: unknown = null;
  let results = new Map<unknown, unknown>();
  const select = (work: unknown) => {
    last = work;
    results = known.get(work) ?? new Map<unknown, unknown>();
    known.set(work, results);
  };
  return {
    of<K, T>(work: (key: K) => T, key: K): T {
      if (work !== last) select(work);
      const kept = results;
      let result = kept.get(key) as T | undefined;
      if (result === undefined && !kept.has(key)) {
        result = work(key);
        if (kept.size < most) kept.set(key, result);
      }
      return result as T;
    },
  };
}
