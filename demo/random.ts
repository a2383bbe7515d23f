/** A seeded stream of numbers (mulberry32), so that the demo library is the same bytes every time. */
export function randomFrom(seed: number) {
  let state = seed >>> 0;
  const next = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const below = (n: number) => Math.floor(next() * n);
  return {
    next,
    below,
    between: (low: number, high: number) => low + below(high - low + 1),
    chance: (p: number) => next() < p,
    pick: <T>(list: readonly T[]): T => list[below(list.length)]!,
    /** A new array in random order. */
    shuffled: <T>(list: readonly T[]): T[] => {
      const copy = [...list];
      for (let i = copy.length - 1; i > 0; i--) {
        const j = below(i + 1);
        [copy[i], copy[j]] = [copy[j]!, copy[i]!];
      }
      return copy;
    },
  };
}
export type Random = ReturnType<typeof randomFrom>;
