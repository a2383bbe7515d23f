/**
 * The fewest items to lift so that the rest stands in order: all that are not in a longest non-decreasing
 * subsequence of the keys. Gives indexes, ascending. n log n.
 */
export function outOfOrder(keys: readonly string[]): number[] {
  const tails: number[] = [];
  const before = new Array<number>(keys.length).fill(-1);
  keys.forEach((key, i) => {
    let low = 0;
    let high = tails.length;
    while (low < high) {
      const mid = (low + high) >> 1;
      if (keys[tails[mid]!]! <= key) low = mid + 1;
      else high = mid;
    }
    before[i] = low > 0 ? tails[low - 1]! : -1;
    tails[low] = i;
  });
  const standing = new Set<number>();
  for (let i = tails.at(-1) ?? -1; i >= 0; i = before[i]!) standing.add(i);
  return keys.flatMap((_, i) => (standing.has(i) ? [] : [i]));
}
