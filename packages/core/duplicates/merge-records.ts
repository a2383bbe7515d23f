import { callNumberText } from '../callnumbers';
import { creation, removal, update, type ChangeOf, type Id, type Versioned } from '../changes';
import { partKey, type Copy, type Holding } from '../holdings';
import type { MarcRecord } from '../marc';
import type { Piled } from '../piles';

/** That a number of a record that was merged away leads to the one that was kept. The object has the number of the lost one. */
export interface Lead {
  readonly into: Id<'record'>;
}

/** Two records of which a person has said that they are two things, the lower number first, and why. */
export interface Apart {
  readonly a: Id<'record'>;
  readonly b: Id<'record'>;
  readonly reason: string;
}

/** A holding with its copies. */
export interface Stocked {
  readonly holding: Versioned<Holding, 'holding'>;
  readonly copies: readonly Versioned<Copy, 'copy'>[];
}

/** What a merge of records is made from. */
export interface RecordMerge {
  readonly base: Versioned<MarcRecord, 'record'>;
  /** What the kept record becomes. */
  readonly marc: MarcRecord;
  readonly lost: readonly Versioned<MarcRecord, 'record'>[];
  /** What hangs on the kept record, and on the lost ones. */
  readonly kept: readonly Stocked[];
  readonly moving: readonly Stocked[];
  /** Where the records lie on piles. */
  readonly piled: readonly Versioned<Piled, 'piled'>[];
}

export type MergeChange =
  | ChangeOf<'record', MarcRecord>
  | ChangeOf<'holding', Holding>
  | ChangeOf<'copy', Copy>
  | ChangeOf<'piled', Piled>
  | ChangeOf<'lead', Lead>;

const placeOf = (h: Holding): string => `${h.branch} ${h.location} ${callNumberText(h)}`;

/**
 * Merges records into one: it becomes what was chosen, holdings and copies of the others hang on it (in its own holding where branch,
 * location and call number are the same), copies are numbered on behind its own, piles have it once, and the numbers of the others
 * lead to it.
 */
export function recordMergePlan(merge: RecordMerge): MergeChange[] {
  const { base, marc, lost } = merge;
  return [
    update('record', base, marc),
    ...lost.map((r) => removal('record', r)),
    ...lost.map((r) => creation('lead', r.id as number, { into: base.id })),
    ...movedStock({ into: base.id, ...merge }),
    ...pileChanges(merge),
  ];
}

/**
 * Moves holdings with their copies to a record: into its own holding where branch, location and call number are the same, else as they
 * are. Copies are numbered on behind those that it has, by part.
 */
export function movedStock({
  into: record,
  kept,
  moving,
}: {
  readonly into: Id<'record'>;
  readonly kept: readonly Stocked[];
  readonly moving: readonly Stocked[];
}): (ChangeOf<'holding', Holding> | ChangeOf<'copy', Copy>)[] {
  const changes: (ChangeOf<'holding', Holding> | ChangeOf<'copy', Copy>)[] = [];
  const places = new Map<string, Id<'holding'>>(kept.map((k) => [placeOf(k.holding.value), k.holding.id]));
  const numbers = new Map<string, number>();
  for (const { value } of kept.flatMap((k) => k.copies)) raise(numbers, value);
  for (const { holding, copies } of moving) {
    const place = placeOf(holding.value);
    const into = places.get(place) ?? holding.id;
    if (into === holding.id) {
      places.set(place, into);
      changes.push(update('holding', holding, { ...holding.value, record }));
    } else changes.push(removal('holding', holding));
    for (const copy of copies) {
      const number = copy.value.number === 0 ? 0 : (numbers.get(partKey(copy.value.part)) ?? 0) + 1;
      const value = { ...copy.value, holding: into, number };
      raise(numbers, value);
      changes.push(update('copy', copy, value));
    }
  }
  return changes;
}

function raise(numbers: Map<string, number>, { part, number }: Copy): void {
  const key = partKey(part);
  numbers.set(key, Math.max(numbers.get(key) ?? 0, number));
}

function pileChanges({ base, lost, piled }: RecordMerge): MergeChange[] {
  const on = new Set(piled.filter((p) => p.value.object === base.id).map((p) => p.value.pile));
  return piled.flatMap((p): MergeChange[] => {
    if (!lost.some((r) => r.id === p.value.object)) return [];
    if (on.has(p.value.pile)) return [removal('piled', p)];
    on.add(p.value.pile);
    return [update('piled', p, { ...p.value, object: base.id })];
  });
}
