import type { LookAlike } from './look-alikes';

/**
 * Pairs in bunches: those whose headings are linked by any chain of pairs are in one, and no heading is in two. Bunches are in the order of their
 * first pair. Takes about as long as there are pairs.
 */
export function pairsTogether(pairs: readonly LookAlike[]): LookAlike[][] {
  const above = new Map<number, number>();
  /** The heading that stands for all that a heading is linked with. */
  function top(id: number): number {
    let highest = id;
    for (let next = above.get(highest); next !== undefined; next = above.get(highest)) highest = next;
    for (let at = id; at !== highest;) {
      const next = above.get(at)!;
      above.set(at, highest);
      at = next;
    }
    return highest;
  }
  for (const { a, b } of pairs) {
    const [x, y] = [top(a), top(b)];
    if (x !== y) above.set(y, x);
  }
  const bunches = new Map<number, LookAlike[]>();
  for (const pair of pairs) {
    const of = top(pair.a);
    const there = bunches.get(of);
    if (there) there.push(pair);
    else bunches.set(of, [pair]);
  }
  return [...bunches.values()];
}
