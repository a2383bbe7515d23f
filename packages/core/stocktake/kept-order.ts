/** More than a shelf has copies: an order of more kept copies outweighs any number of neighbours. */
const ONE_COPY = 2 ** 26;

/**
 * The fewest copies to take out so that the ranks of the rest never fall: all that are in no longest non-decreasing subsequence.
 * Among those of the same length the one that keeps most neighbours together, so that what moves together is lifted together; then
 * the one that keeps what was read first. Grows by one copy at a time, log n each.
 */
export class KeptOrder {
  /** Best chain that ends with an entry: its copies and the neighbours it keeps; and the entry before it in that chain. */
  private readonly score: number[] = [];
  private readonly before: number[] = [];
  private readonly ranks: number[] = [];
  /** By rank, as a Fenwick tree: the entry with the best score, -1 for none. */
  private readonly best: Int32Array;
  private last = -1;

  /** `size`: ranks are 0 to size - 1. */
  constructor(size: number) {
    this.best = new Int32Array(size + 1).fill(-1);
  }

  get length(): number {
    return this.ranks.length;
  }

  /** The next copy of the walk. */
  append(rank: number): void {
    const { score, best } = this;
    const at = score.length;
    let from = -1;
    for (let node = rank + 1; node > 0; node -= node & -node) {
      const entry = best[node]!;
      if (
        entry >= 0 &&
        (from < 0 || score[entry]! > score[from]! || (score[entry] === score[from] && entry < from))
      )
        from = entry;
    }
    let own = (from < 0 ? 0 : score[from]!) + ONE_COPY;
    const neighbour = at - 1;
    if (neighbour >= 0 && this.ranks[neighbour]! <= rank && score[neighbour]! + ONE_COPY + 1 > own) {
      own = score[neighbour]! + ONE_COPY + 1;
      from = neighbour;
    }
    this.ranks.push(rank);
    score.push(own);
    this.before.push(from);
    for (let node = rank + 1; node < best.length; node += node & -node) {
      const entry = best[node]!;
      if (entry < 0 || own > score[entry]!) best[node] = at;
    }
    if (this.last < 0 || own > score[this.last]!) this.last = at;
  }

  /** For each copy in the order of the walk: 1 when it stays, 0 when it is one of those to move. */
  kept(): Uint8Array {
    const stays = new Uint8Array(this.ranks.length);
    for (let at = this.last; at >= 0; at = this.before[at]!) stays[at] = 1;
    return stays;
  }
}

/** The fewest items to move so that the ranks of the rest never fall, as indexes, ascending. n log n. */
export function fewestMoves(ranks: readonly number[]): number[] {
  const order = new KeptOrder(ranks.reduce((most, r) => Math.max(most, r), -1) + 1);
  for (const rank of ranks) order.append(rank);
  const stays = order.kept();
  return ranks.flatMap((_, i) => (stays[i] ? [] : [i]));
}
