import { sameValue } from '@osier/core/changes';
import type { Checker } from '@osier/core/checks';
import type { Change, ChangeSet, Kind } from '@osier/core/kinds';
import { prepareProjections } from '../projections';
import type { Writing } from '../projections/projection';
import { changesByKind, type ChangesByKind } from './changes-by-kind';
import { inSlices } from './in-slices';
import { rowsToWrite, type Row } from './write-rows';

/** A change set with all that can be computed of it without the store; what is not done yet is being computed. */
export interface Prepared {
  /** What the change set was that it was made from. */
  readonly of: ChangeSet;
  /** It is made by the rules that stand when the store has so many writes. */
  readonly asOf: number;
  /** Without those that change nothing. */
  readonly changes: ChangeSet;
  readonly byKind: ChangesByKind;
  rows<K extends Kind>(kind: K): Promise<readonly Row[]>;
  readonly projections: readonly Promise<Writing>[];
  /** The change set as the daybook keeps it. */
  readonly text: Promise<string>;
}

/** Begins to compute what writing a change set needs, in the order in which it is needed; `checker` checks by the rules that stand at `asOf` writes. */
export function prepare(of: ChangeSet, checker: Checker, asOf: number): Prepared {
  const changes = of.filter((c) => !sameValue(c.before, c.after));
  const byKind = changesByKind(changes);
  let last: Promise<unknown> = Promise.resolve();
  /** One after the other; what is never asked for, because something else has failed, may fail unseen. */
  const next = <T>(compute: () => T | Promise<T>): Promise<T> => {
    const mine = last.then(compute);
    last = mine.catch(() => undefined);
    return mine;
  };
  const rows = new Map(
    byKind.kinds.map((kind) => [kind, next(() => rowsToWrite(kind, byKind.of(kind), checker))]),
  );
  const projections = prepareProjections(byKind, checker, next);
  const text = next(async () => `[${(await inSlices(changes, (c: Change) => JSON.stringify(c))).join(',')}]`);
  return {
    of,
    asOf,
    changes,
    byKind,
    rows: async (kind) => (await rows.get(kind)) ?? [],
    projections,
    text,
  };
}
