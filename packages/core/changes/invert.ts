import type { AnyChange } from './change-set';
import { sameValue } from './same-value';

/** The change set that takes a committed one back, last change first. */
export function invert<C extends AnyChange>(changes: readonly C[]): C[] {
  return changes.map((c) => ({ ...c, version: c.version + 1, before: c.after, after: c.before })).reverse();
}

/** An object that is no longer what a change set left, so that taking it back would lose later work. */
export interface Conflict<K extends string = string> {
  readonly kind: K;
  readonly id: number;
  readonly expected: unknown;
  readonly found: unknown;
  /** The kind of a thing that hangs on the object and would hang on nothing. */
  readonly dependsOn?: string;
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
export function rebase<C extends AnyChange>(
  changes: readonly C[],
  standing: (kind: C['kind'], id: number) => Standing,
): { changes: C[]; conflicts: Conflict<C['kind']>[] } {
  const conflicts: Conflict<C['kind']>[] = [];
  const rebased: C[] = [];
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

/** Two successive changes of one object as one. */
export const joinChanges = <C extends AnyChange>(first: C, last: C): C => ({ ...first, after: last.after });

/** One change an object: successive changes of the same object joined, those that end where they began dropped. */
export function squash<C extends AnyChange>(changes: readonly C[]): C[] {
  const joined = new Map<string, C>();
  for (const change of changes) {
    const key = `${change.kind} ${change.id}`;
    const first = joined.get(key);
    joined.set(key, first ? joinChanges(first, change) : change);
  }
  return [...joined.values()].filter((c) => !sameValue(c.before, c.after));
}
