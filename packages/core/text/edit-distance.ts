/**
 * Number of single-character insertions, deletions, replacements and swaps of neighbours between two texts
 * (optimal string alignment), or `limit + 1` as soon as it must exceed `limit`. Only cells that can stay within the
 * limit are filled (Ukkonen's band).
 */
export function editDistance(a: string, b: string, limit = Infinity): number {
  let [from, endA, endB] = [0, a.length, b.length];
  while (from < endA && from < endB && a.charCodeAt(from) === b.charCodeAt(from)) from++;
  while (endA > from && endB > from && a.charCodeAt(endA - 1) === b.charCodeAt(endB - 1)) {
    endA--;
    endB--;
  }
  const [m, n] = [endA - from, endB - from];
  if (Math.abs(m - n) > limit) return limit + 1;
  if (m === 0 || n === 0) return m + n;
  if (limit === 0) return 1;
  const band = Math.min(limit, Math.max(m, n));
  const far = band + 1;
  // Three rows of the table: one for each of the last two letters and one being filled.
  let [beforeLast, last, row] = [new Uint16Array(n + 2), new Uint16Array(n + 2), new Uint16Array(n + 2)];
  for (let j = 0; j <= n; j++) last[j] = Math.min(j, far);
  for (let i = 1; i <= m; i++) {
    const [low, high] = [Math.max(1, i - band), Math.min(n, i + band)];
    const letter = a.charCodeAt(from + i - 1);
    const letterBefore = i > 1 ? a.charCodeAt(from + i - 2) : -1;
    row[low - 1] = low === 1 ? Math.min(i, far) : far;
    let best = row[low - 1]!;
    for (let j = low; j <= high; j++) {
      const other = b.charCodeAt(from + j - 1);
      let cost = last[j - 1]! + (letter === other ? 0 : 1);
      if (last[j]! + 1 < cost) cost = last[j]! + 1;
      if (row[j - 1]! + 1 < cost) cost = row[j - 1]! + 1;
      if (
        j > 1 &&
        letterBefore === other &&
        letter === b.charCodeAt(from + j - 2) &&
        beforeLast[j - 2]! + 1 < cost
      )
        cost = beforeLast[j - 2]! + 1;
      if (cost > far) cost = far;
      row[j] = cost;
      if (cost < best) best = cost;
    }
    if (high < n) row[high + 1] = far;
    if (best > band) return limit + 1;
    [beforeLast, last, row] = [last, row, beforeLast];
  }
  return last[n]! > limit ? limit + 1 : last[n]!;
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
