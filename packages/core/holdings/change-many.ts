import { creation, removal, sameValue, update, type ChangeOf, type Id, type Versioned } from '../changes';
import type { HouseRules } from '../house';
import type { MarcRecord } from '../marc';
import { editedCopy, editedPlace, withLocalsRead } from './copy-edits';
import type { PartEdit } from './edited-parts';
import type { KeptLocalField } from './local-fields';
import type { CodeLists, Copy, Holding } from './objects';
import { placeKey } from './place-key';

/** The copies of one title, of which some are changed. */
export interface TitleCopies {
  readonly record: MarcRecord;
  readonly holdings: readonly Versioned<Holding, 'holding'>[];
  /** All of them, so that a holding is known to be left empty. */
  readonly copies: readonly Versioned<Copy, 'copy'>[];
  readonly chosen: ReadonlySet<number>;
}

/** What becomes of one chosen copy. */
export interface ChangedCopy {
  readonly copy: Versioned<Copy, 'copy'>;
  readonly from: Holding;
  readonly after: Copy;
  readonly to: Holding;
  /** Why it stays as it is; null when it is changed. */
  readonly problem: string | null;
}

/** The changes to the copies of a title, and what becomes of each that was chosen and would be another. */
export interface ManyChanged {
  readonly rows: readonly ChangedCopy[];
  readonly changes: readonly (ChangeOf<'copy', Copy> | ChangeOf<'holding', Holding>)[];
}

/**
 * Changes the chosen copies of a title. A copy that stands elsewhere afterwards goes to the holding that is there, or to a new one; a holding
 * whose copies all go the same way is changed itself, with its notes, and one that is left without copies is deleted. A
 * copy that cannot be changed stays as it is, and says why.
 */
export function changeMany(
  { record, holdings, copies, chosen }: TitleCopies,
  edits: readonly PartEdit[],
  by: {
    readonly house: HouseRules;
    readonly lists: CodeLists;
    readonly fields: readonly KeptLocalField[];
    readonly nextHolding: () => Id<'holding'>;
  },
): ManyChanged {
  const at = new Map(holdings.map((h) => [h.id, h]));
  const rows: ChangedCopy[] = [];
  for (const copy of copies) {
    const holding = chosen.has(copy.id) ? at.get(copy.value.holding) : undefined;
    if (!holding) continue;
    const from = holding.value;
    const edited = withLocalsRead(editedCopy(copy.value, edits, by.house), edits, by.fields);
    const stays = (problem: string) => rows.push({ copy, from, after: copy.value, to: from, problem });
    if ('problem' in edited) {
      stays(edited.problem);
      continue;
    }
    const after = edited.copy;
    const found = editedPlace(from, edits, { record, type: after.type, ...by });
    if ('problem' in found) stays(found.problem);
    else if (!sameValue(after, copy.value) || !sameValue(found.place, from))
      rows.push({ copy, from, after, to: found.place, problem: null });
  }
  return { rows, changes: changesOf(rows, holdings, copies, by.nextHolding) };
}

function changesOf(
  rows: readonly ChangedCopy[],
  holdings: TitleCopies['holdings'],
  copies: TitleCopies['copies'],
  nextHolding: () => Id<'holding'>,
): ManyChanged['changes'] {
  const done = rows.filter((r) => r.problem === null);
  const places = new Map(holdings.map((h) => [placeKey(h.value), h.id]));
  const now = new Map(copies.map((c) => [c.id, c.value.holding]));
  const changes: (ChangeOf<'copy', Copy> | ChangeOf<'holding', Holding>)[] = [];
  const stays = new Set<number>();
  // Holdings that all their copies leave the same way keep their number; they go before the copies of others are placed.
  for (const held of holdings) {
    const on = copies.filter((c) => c.value.holding === held.id);
    const going = done.filter((r) => r.copy.value.holding === held.id && !sameValue(r.to, held.value));
    const [first] = going;
    if (!first || going.length < on.length || going.some((r) => !sameValue(r.to, first.to))) continue;
    const taken = places.get(placeKey(first.to));
    if (taken !== undefined && taken !== held.id) continue;
    places.delete(placeKey(held.value));
    places.set(placeKey(first.to), held.id);
    changes.push(update('holding', held, first.to));
    stays.add(held.id);
  }
  for (const { copy, from, to, after } of done) {
    const moves = !stays.has(copy.value.holding) && placeKey(from) !== placeKey(to);
    let holding = copy.value.holding;
    if (moves) {
      const there = places.get(placeKey(to));
      holding = there ?? nextHolding();
      if (there === undefined) {
        places.set(placeKey(to), holding);
        changes.push(creation('holding', holding, to));
      }
    }
    now.set(copy.id, holding);
    const next = { ...after, holding };
    if (!sameValue(next, copy.value)) changes.push(update('copy', copy, next));
  }
  const full = new Set(now.values());
  for (const held of holdings)
    if (!full.has(held.id) && copies.some((c) => c.value.holding === held.id))
      changes.push(removal('holding', held));
  return changes;
}
