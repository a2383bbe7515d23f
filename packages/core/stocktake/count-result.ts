import type { UnknownWhy } from './code-sense';
import type { Outside } from './counted-copy';
import { COPY_OUTCOMES, type CopyOutcome } from './outcomes';
import type { ReadShelf, ShelfCount, Stray } from './shelf-count';

/** Copies that stand together in the walk and belong together elsewhere on the shelf. */
export interface MovedBlock {
  /** Indexes, in the order of the walk. */
  readonly copies: readonly number[];
  /** Between which copies that stay they belong; null at an end of what was read. */
  readonly after: number | null;
  readonly before: number | null;
}

/** The order of one shelf: what was read of a home in a section. */
export interface ShelfOrderResult {
  readonly section: number;
  readonly home: number;
  /** Copies read, each at its first reading there. */
  readonly read: number;
  readonly moves: readonly MovedBlock[];
}

/** A code that is none of a copy. */
export interface StrayResult {
  readonly section: number;
  readonly line: number;
  readonly code: string;
  /** The copy it is taken for; null for an unknown one. */
  readonly copy: number | null;
  readonly why: UnknownWhy;
  /** Copies that one slip leads to. */
  readonly candidates: readonly number[];
}

/** How shelf and records compare. Copies are told by their indexes. */
export interface CountResult {
  /** What became of a copy; null for one of no home. */
  readonly outcomeOf: (copy: number) => CopyOutcome | null;
  /** In shelf order, home by home. */
  readonly missing: readonly number[];
  readonly skipped: readonly { readonly home: number; readonly copies: readonly number[] }[];
  /** Read although their status says that they are not on the shelf. */
  readonly found: readonly number[];
  /** Read first in a section that is not their home. */
  readonly elsewhere: readonly {
    readonly copy: number;
    readonly section: number;
    readonly outside: Outside;
  }[];
  readonly repeated: readonly { readonly copy: number; readonly times: number; readonly isFar: boolean }[];
  readonly order: readonly ShelfOrderResult[];
  readonly strays: readonly StrayResult[];
}

const STOOD = COPY_OUTCOMES.indexOf('stood');

/** Compares what was read so far with the records (the rules of each part: docs/architecture.md, Stocktake). */
export function resultOf(count: ShelfCount): CountResult {
  const { copies, reads, homes, rules } = count;
  const kept = new Map(count.shelves.map((shelf) => [shelf, keptOf(count, shelf)]));
  const strays = count.strays.map((stray) => placed(count, stray, kept));
  const stood = Uint8Array.from(reads, (n) => (n > 0 ? 1 : 0));
  for (const { copy } of strays) if (copy !== null) stood[copy] = 1;
  const outcomes = new Uint8Array(copies.length).fill(255);
  const missing: number[] = [];
  const skipped: { home: number; copies: number[] }[] = [];
  homes.forEach((home, number) => {
    let run: number[] = [];
    const endRun = () => {
      if (run.length === 0) return;
      const isSkipped = run.length >= rules.skipRunMin;
      for (const i of run) outcomes[i] = COPY_OUTCOMES.indexOf(isSkipped ? 'skipped' : 'missing');
      if (isSkipped) skipped.push({ home: number, copies: run });
      else for (const i of run) missing.push(i);
      run = [];
    };
    for (const i of home.copies)
      if (stood[i]) {
        outcomes[i] = STOOD;
        endRun();
      } else {
        const how = accountedAs(count, i);
        if (how === null) run.push(i);
        else outcomes[i] = COPY_OUTCOMES.indexOf(how);
      }
    endRun();
  });
  const found: number[] = [];
  const elsewhere: { copy: number; section: number; outside: Outside }[] = [];
  const repeated: { copy: number; times: number; isFar: boolean }[] = [];
  for (let copy = 0; copy < copies.length; copy++) {
    if (reads[copy] === 0) continue;
    const { home, outside, status } = copies[copy]!;
    const section = count.firstSection[copy]!;
    if (!rules.isExpected(status)) found.push(copy);
    if (home < 0) elsewhere.push({ copy, section, outside });
    else if (!count.sections[section]!.homes.includes(home))
      elsewhere.push({ copy, section, outside: 'location' });
    if (reads[copy]! > 1) repeated.push({ copy, times: reads[copy]!, isFar: count.readFar[copy] === 1 });
  }
  return {
    outcomeOf: (copy) => COPY_OUTCOMES[outcomes[copy]!] ?? null,
    ...{ missing, skipped, strays, found, elsewhere, repeated },
    order: count.shelves.map((shelf) => ({
      ...{ section: shelf.section, home: shelf.home, read: shelf.copies.length },
      moves: movesOf(count, shelf, kept.get(shelf)!),
    })),
  };
}

/** How a copy that did not stand is accounted for; null for one that is expected. */
function accountedAs({ copies, rules }: ShelfCount, copy: number): 'on loan' | 'seen since' | 'other' | null {
  const { status, lastSeen } = copies[copy]!;
  if (status === 'on loan') return 'on loan';
  if (!rules.isExpected(status)) return 'other';
  return rules.seenSince !== '' && lastSeen >= rules.seenSince ? 'seen since' : null;
}

/** The copies of a shelf that stay, their places in the walk and their ranks, ascending. */
interface Kept {
  readonly stays: Uint8Array;
  readonly copies: Int32Array;
  readonly at: Int32Array;
  readonly ranks: Int32Array;
}

function keptOf(count: ShelfCount, shelf: ReadShelf): Kept {
  const stays = shelf.order.kept();
  const copies = Int32Array.from(shelf.copies.filter((_, k) => stays[k]));
  const at = Int32Array.from(shelf.at.filter((_, k) => stays[k]));
  return { stays, copies, at, ranks: copies.map((i) => count.ranks[i]!) };
}

/** How many of ascending numbers are below (or, with `same`, not above) one. */
function howManyBelow(sorted: Int32Array, number: number, same: boolean): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (sorted[mid]! < number || (same && sorted[mid] === number)) low = mid + 1;
    else high = mid;
  }
  return low;
}

/** What is to be moved of a shelf: one block for copies that were read together and belong to one place in the order they were read in. */
function movesOf(count: ShelfCount, shelf: ReadShelf, kept: Kept): MovedBlock[] {
  const blocks: { copies: number[]; after: number | null; before: number | null }[] = [];
  if (kept.copies.length === shelf.copies.length) return blocks;
  let last = -2;
  shelf.copies.forEach((copy, k) => {
    if (kept.stays[k]) return;
    const gap = howManyBelow(kept.ranks, count.ranks[copy]!, true);
    const [after, before] = [kept.copies[gap - 1] ?? null, kept.copies[gap] ?? null];
    const block = blocks.at(-1);
    const goesOn =
      block &&
      last === k - 1 &&
      block.after === after &&
      count.ranks[block.copies.at(-1)!]! <= count.ranks[copy]!;
    if (goesOn) block.copies.push(copy);
    else blocks.push({ copies: [copy], after, before });
    last = k;
  });
  return blocks;
}

/** How good it is to take a stray for a copy, least is best; null when it may not be taken for it. */
function likeness(
  count: ShelfCount,
  stray: Stray,
  copy: number,
  kept: ReadonlyMap<ReadShelf, Kept>,
): number | null {
  const { home, status } = count.copies[copy]!;
  const { walk, homes } = count.sections[stray.section]!;
  if (count.reads[copy] === 0 && homes.includes(home)) {
    const shelf = count.shelf(stray.section, home);
    const own = shelf && kept.get(shelf);
    const before = own ? howManyBelow(own.at, stray.at, false) : 0;
    const rank = count.ranks[copy]!;
    const fits = !own || ((own.ranks[before - 1] ?? -1) <= rank && rank <= (own.ranks[before] ?? Infinity));
    if (fits) return count.rules.isExpected(status) ? 0 : 1;
  }
  const scans = count.walks[walk]!;
  if (scans[stray.at + 1] === copy) return 2;
  return scans[stray.at - 1] === copy ? 3 : null;
}

/** A stray with the copy it is taken for: of those that one slip leads to the likeliest, of equals the one with the lowest number. */
function placed(count: ShelfCount, stray: Stray, kept: ReadonlyMap<ReadShelf, Kept>): StrayResult {
  const { section, line, code, candidates, why } = stray;
  let [best, copy]: [number, number | null] = [Infinity, null];
  for (const candidate of candidates) {
    const like = likeness(count, stray, candidate, kept);
    if (like !== null && like < best) [best, copy] = [like, candidate];
  }
  return { section, line, code, copy, why, candidates };
}
