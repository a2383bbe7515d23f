import { diffArrays } from 'diff';
import { type Field, type MarcRecord } from './record';

/** A place that two people have changed in different ways: the fields as they were, and as each has them. */
export interface Collision {
  readonly base: readonly Field[];
  readonly mine: readonly Field[];
  readonly theirs: readonly Field[];
}

/** Two versions of a record in one: the merged record as `choices` decide, and the places where a choice is needed, in their order. */
export interface Reconciled {
  readonly record: MarcRecord;
  readonly collisions: readonly Collision[];
}
export type Side = 'mine' | 'theirs';

/** A stretch of the base that one side has exchanged for other fields; an insertion exchanges nothing. */
interface Hunk {
  readonly from: number;
  readonly to: number;
  readonly fields: readonly Field[];
}

/**
 * Joins what two people made of one record. What only one changed is taken; what both changed alike, once; where both changed the same
 * fields (or the leader) otherwise, `choices` say whose stands, one for each collision, theirs where none is given.
 */
export function reconciled(
  base: MarcRecord,
  mine: MarcRecord,
  theirs: MarcRecord,
  choices: readonly Side[] = [],
): Reconciled {
  const collisions: Collision[] = [];
  const chosen = (one: Collision): readonly Field[] => {
    const side = choices[collisions.length] ?? 'theirs';
    collisions.push(one);
    return one[side];
  };
  const leader = leaderOf(base, mine, theirs, chosen);
  const fields: Field[] = [];
  let at = 0;
  for (const { from, to, mine: own, theirs: other } of stretches(
    hunksOf(base, mine),
    hunksOf(base, theirs),
  )) {
    fields.push(...base.fields.slice(at, from));
    const was = base.fields.slice(from, to);
    const [a, b] = [withHunks(was, own, from), withHunks(was, other, from)];
    if (other.length === 0 || same(a, b)) fields.push(...a);
    else if (own.length === 0) fields.push(...b);
    // Two insertions at one place stand in each other's way no more than two at two places.
    else if (from === to) fields.push(...b, ...a.filter((f) => !b.some((g) => same(f, g))));
    else fields.push(...chosen({ base: was, mine: a, theirs: b }));
    at = to;
  }
  fields.push(...base.fields.slice(at));
  return { record: { leader, fields }, collisions };
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const asField = (leader: string): Field => ({ tag: 'LDR', value: leader });

function leaderOf(
  base: MarcRecord,
  mine: MarcRecord,
  theirs: MarcRecord,
  chosen: (one: Collision) => readonly Field[],
): string {
  if (mine.leader === base.leader || mine.leader === theirs.leader) return theirs.leader;
  if (theirs.leader === base.leader) return mine.leader;
  const [field] = chosen({
    base: [asField(base.leader)],
    mine: [asField(mine.leader)],
    theirs: [asField(theirs.leader)],
  });
  return field && 'value' in field ? field.value : theirs.leader;
}

function hunksOf(base: MarcRecord, other: MarcRecord): Hunk[] {
  const hunks: Hunk[] = [];
  let [from, taken] = [0, 0];
  let open: { from: number; to: number; fields: Field[] } | null = null;
  for (const part of diffArrays(
    base.fields.map((f) => JSON.stringify(f)),
    other.fields.map((f) => JSON.stringify(f)),
  )) {
    const { length } = part.value;
    if (!part.added && !part.removed) {
      if (open) hunks.push(open);
      open = null;
      from += length;
      taken += length;
      continue;
    }
    open ??= { from, to: from, fields: [] };
    if (part.removed) open.to = from += length;
    else open.fields.push(...other.fields.slice(taken, (taken += length)));
  }
  if (open) hunks.push(open);
  return hunks.flatMap((h) => oneByOne(base, h));
}

/** A hunk in which each field has another version of itself is as many hunks: neighbours are not changed together. */
function oneByOne(base: MarcRecord, hunk: Hunk): Hunk[] {
  const was = base.fields.slice(hunk.from, hunk.to);
  if (was.length !== hunk.fields.length || was.some((f, i) => f.tag !== hunk.fields[i]!.tag)) return [hunk];
  return hunk.fields.map((f, i) => ({ from: hunk.from + i, to: hunk.from + i + 1, fields: [f] }));
}

interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly mine: readonly Hunk[];
  readonly theirs: readonly Hunk[];
}

/** Hunks of both sides that touch the same fields, joined to stretches in the order of the base. */
function stretches(mine: readonly Hunk[], theirs: readonly Hunk[]): Stretch[] {
  const all = [
    ...mine.map((h) => ({ ...h, isMine: true })),
    ...theirs.map((h) => ({ ...h, isMine: false })),
  ].sort((a, b) => a.from - b.from || a.to - b.to);
  const found: { from: number; to: number; mine: Hunk[]; theirs: Hunk[] }[] = [];
  for (const hunk of all) {
    const last = found.at(-1);
    const touches = last && (hunk.from < last.to || (hunk.from === last.from && hunk.to === last.to));
    const into = touches ? last : { from: hunk.from, to: hunk.to, mine: [], theirs: [] };
    if (!touches) found.push(into);
    into.to = Math.max(into.to, hunk.to);
    (hunk.isMine ? into.mine : into.theirs).push(hunk);
  }
  return found;
}

/** The fields of a stretch as one side has them. */
function withHunks(was: readonly Field[], hunks: readonly Hunk[], offset: number): Field[] {
  const out: Field[] = [];
  let at = 0;
  for (const h of hunks) {
    out.push(...was.slice(at, h.from - offset), ...h.fields);
    at = h.to - offset;
  }
  return [...out, ...was.slice(at)];
}
