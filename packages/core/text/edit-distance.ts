/**
 * Number of single-character insertions, deletions, replacements and swaps of neighbours between two texts
 * (optimal string alignment), or `limit + 1` as soon as it must exceed `limit`.
 */
export function editDistance(a: string, b: string, limit = Infinity): number {
  if (Math.abs(a.length - b.length) > limit) return limit + 1;
  let beforeLast: number[] = [];
  let last = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    let best = i;
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1];
      let cost = Math.min(last[j]! + 1, row[j - 1]! + 1, last[j - 1]! + (same ? 0 : 1));
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        cost = Math.min(cost, beforeLast[j - 2]! + 1);
      row.push(cost);
      best = Math.min(best, cost);
    }
    if (best > limit) return limit + 1;
    beforeLast = last;
    last = row;
  }
  return Math.min(last[b.length]!, limit + 1);
}

/** The candidates nearest to what was typed, closest first; capitals count as a small difference. */
export function nearest(typed: string, candidates: readonly string[], most = 3): string[] {
  const scored = candidates.map((candidate) => ({
    candidate,
    score:
      editDistance(typed.toLowerCase(), candidate.toLowerCase()) +
      (typed.length === candidate.length ? 0 : 0.1),
  }));
  return scored
    .sort((a, b) => a.score - b.score || (a.candidate < b.candidate ? -1 : 1))
    .slice(0, most)
    .map((s) => s.candidate);
}
