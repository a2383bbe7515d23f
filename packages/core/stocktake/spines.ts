import type { CountResult, StrayResult } from './count-result';
import type { ReckonedCopy } from './reckon';
import type { ShelfCount } from './shelf-count';
import type { SpineState } from './spine-states';

/** One spine in the order of the walk, for the shelf strip; a missing copy is one where it should stand. */
export interface Spine {
  readonly state: SpineState;
  readonly code: string;
  readonly callNumber: string;
  readonly title: string;
  readonly copy: number | null;
  readonly record: number | null;
  /** For a misplaced one: the barcode behind which it belongs; null for the beginning. */
  readonly after?: string | null;
  /** So many copies before this spine were not scanned: a skipped shelf. */
  readonly jumped?: number;
}

/** The spines of each walk, in its order; walks by their number. */
export function spinesOf(count: ShelfCount, result: CountResult, copies: readonly ReckonedCopy[]): Spine[][] {
  const states = new Map<number, SpineState>();
  for (const i of result.found) states.set(i, 'found');
  for (const { copy } of result.elsewhere) states.set(copy, 'away');
  const lifted = new Map<number, string | null>();
  for (const { moves } of result.order)
    for (const block of moves)
      for (const i of block.copies) {
        lifted.set(i, block.after === null ? null : copies[block.after]!.barcode);
        if (!states.has(i)) states.set(i, 'misplaced');
      }
  const { ghosts, notches } = gapsOf(count, result, lifted);
  const spine = (i: number, state: SpineState, more: Partial<Spine> = {}): Spine => {
    const { barcode, callNumber, name, id, record } = copies[i]!;
    return { state, code: barcode, callNumber, title: name, copy: id, record, ...more };
  };
  const strays = new Map<number, StrayResult[]>();
  for (const stray of result.strays) {
    const { walk } = count.sections[stray.section]!;
    const known = strays.get(walk);
    if (known) known.push(stray);
    else strays.set(walk, [stray]);
  }
  return count.walks.map((scans, walk) => {
    const row: Spine[] = [];
    const seen = new Set<number>();
    const unread = strays.get(walk) ?? [];
    let [stray, notch] = [0, 0];
    const putGhosts = (behind: number) => {
      for (const g of ghosts.get(behind) ?? []) row.push(spine(g, 'missing'));
      notch = notches.get(behind) ?? 0;
    };
    for (const copy of scans) {
      if (copy < 0) {
        const { code, copy: taken } = unread[stray++]!;
        if (taken === null)
          row.push({ state: 'unknown', code, callNumber: '', title: '', copy: null, record: null });
        // One whose own code was read as well stands where that was read.
        else if (count.reads[taken] === 0) row.push({ ...spine(taken, 'misread'), code });
        continue;
      }
      if (seen.has(copy)) continue;
      seen.add(copy);
      // What should stand before the first book of a shelf.
      if (ghosts.has(-1 - copy) || notches.has(-1 - copy)) putGhosts(-1 - copy);
      const after = lifted.get(copy);
      row.push(
        spine(copy, states.get(copy) ?? 'in place', {
          ...(after === undefined ? {} : { after }),
          ...(notch ? { jumped: notch } : {}),
        }),
      );
      notch = 0;
      if (count.sections[count.firstSection[copy]!]?.walk === walk) putGhosts(copy);
    }
    return row;
  });
}

/** Where missing copies and skipped shelves belong: by the copy behind which they stand, or as -1 - copy before the first that stood. */
function gapsOf(count: ShelfCount, result: CountResult, lifted: ReadonlyMap<number, string | null>) {
  const ghosts = new Map<number, number[]>();
  const notches = new Map<number, number>();
  count.homes.forEach((home) => {
    let behind: number | null = null;
    let waiting: number[] = [];
    let skipped = 0;
    for (const i of home.copies) {
      const outcome = result.outcomeOf(i);
      if (outcome === 'stood' && count.reads[i]! > 0 && !lifted.has(i)) {
        const place = behind ?? -1 - i;
        if (waiting.length) ghosts.set(place, waiting);
        if (skipped) notches.set(place, skipped);
        [behind, waiting, skipped] = [i, [], 0];
      } else if (outcome === 'missing') waiting.push(i);
      else if (outcome === 'skipped') skipped++;
    }
    if (behind !== null && waiting.length) ghosts.set(behind, waiting);
    if (behind !== null && skipped) notches.set(behind, skipped);
  });
  return { ghosts, notches };
}
