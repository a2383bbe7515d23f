import type { Change, ChangeSet } from './change-set';
import { sameValue } from './same-value';

/** The change set that takes a committed one back, last change first. */
export function invert(changes: ChangeSet): ChangeSet {
  return changes
    .map((c) => ({ kind: c.kind, id: c.id, version: c.version + 1, before: c.after, after: c.before }))
    .reverse();
}

/** An object that is no longer what a change set left, so that taking it back would lose later work. */
export interface Conflict {
  readonly kind: string;
  readonly id: number;
  readonly expected: unknown;
  readonly found: unknown;
}

/** What stands in the store now: its version (0 when never there) and content (null when not there). */
export interface Standing {
  readonly version: number;
  readonly value: unknown;
}

/**
 * Fits a change set to what stands in the store: versions are taken from there, and every object whose content is
 * not what the change starts from is a conflict. Content decides, not the version, so that a later change which
 * was itself taken back does not stand in the way.
 */
export function rebase(
  changes: ChangeSet,
  standing: (kind: string, id: number) => Standing,
): { changes: ChangeSet; conflicts: Conflict[] } {
  const conflicts: Conflict[] = [];
  const rebased: Change[] = [];
  for (const change of squash(changes)) {
    const now = standing(change.kind, change.id);
    // What is already as it should become was never taken away, or was taken back before.
    if (change.after !== null && sameValue(now.value, change.after)) continue;
    if (!sameValue(now.value, change.before))
      conflicts.push({ kind: change.kind, id: change.id, expected: change.before, found: now.value });
    rebased.push({ ...change, version: now.version });
  }
  return { changes: rebased, conflicts };
}

/** One change an object: successive changes of the same object joined, those that end where they began dropped. */
export function squash(changes: ChangeSet): ChangeSet {
  const joined = new Map<string, Change>();
  for (const change of changes) {
    const key = `${change.kind} ${change.id}`;
    const first = joined.get(key);
    joined.set(key, first ? { ...first, after: change.after } : change);
  }
  return [...joined.values()].filter((c) => !sameValue(c.before, c.after));
}
