import type { Change, ChangeSet } from '@osier/core/changes';
import { KINDS, type Kind, type Objects } from './kinds';

/** A change set by kind, parents before what hangs on them. */
export interface ChangesByKind {
  readonly kinds: readonly Kind[];
  of<K extends Kind>(kind: K): readonly Change<Objects[K]>[];
}

const isKind = (kind: string): kind is Kind => Object.hasOwn(KINDS, kind);
const ALL = Object.keys(KINDS).filter(isKind);

/** Sorts a change set by kind; a change of no kind that is kept here is a mistake of the program. */
export function changesByKind(changes: ChangeSet): ChangesByKind {
  const found = new Map<string, Change[]>();
  for (const change of changes) {
    if (!isKind(change.kind)) throw new Error(`There is no kind ${change.kind}.`);
    const of = found.get(change.kind);
    if (of) of.push(change);
    else found.set(change.kind, [change]);
  }
  return {
    kinds: ALL.filter((k) => found.has(k)),
    // A change carries a value of its kind: that is what the kind says.
    of: <K extends Kind>(kind: K) => (found.get(kind) ?? []) as Change<Objects[K]>[],
  };
}
