import type { Change, ChangeSet } from '@osier/core/kinds';
import { isKind, KIND_NAMES, type Kind } from '@osier/core/kinds';

/** A change set by kind, parents before what hangs on them. */
export interface ChangesByKind {
  readonly kinds: readonly Kind[];
  of<K extends Kind>(kind: K): readonly Change<K>[];
  /** Whether all that it says of a kind is about objects that have never been there before. */
  areNew(kind: Kind): boolean;
}

/** Sorts a change set by kind; a change of no kind that is kept here is a mistake of the program. */
export function changesByKind(changes: ChangeSet): ChangesByKind {
  const found = new Map<Kind, Change[]>();
  for (const change of changes) {
    const kind: string = change.kind;
    if (!isKind(kind)) throw new Error(`There is no kind ${kind}.`);
    const of = found.get(change.kind);
    if (of) of.push(change);
    else found.set(change.kind, [change]);
  }
  return {
    kinds: KIND_NAMES.filter((k) => found.has(k)),
    of: <K extends Kind>(kind: K) =>
      (found.get(kind) ?? []).filter((c): c is Extract<Change, Change<K>> => c.kind === kind),
    areNew: (kind) => (found.get(kind) ?? []).every((c) => c.before === null && c.version === 0),
  };
}
