/**
 * One object's change: what it was, what it becomes. `before` null makes a new object, `after` null removes one.
 * `version` is the object's version before the change (0 for a new one); after the commit it is one more.
 */
export interface Change<T = unknown> {
  readonly kind: string;
  readonly id: number;
  readonly version: number;
  readonly before: T | null;
  readonly after: T | null;
}

/** What one act does to the catalogue, as a value that can be shown, committed, stored and inverted. */
export type ChangeSet = readonly Change[];

/** An object as it stands in the store. */
export interface Versioned<T> {
  readonly id: number;
  readonly version: number;
  readonly value: T;
}

export const creation = <T>(kind: string, id: number, after: T): Change<T> => ({
  kind,
  id,
  version: 0,
  before: null,
  after,
});
export const update = <T>(kind: string, held: Versioned<T>, after: T): Change<T> => ({
  kind,
  id: held.id,
  version: held.version,
  before: held.value,
  after,
});
export const removal = <T>(kind: string, held: Versioned<T>): Change<T> => ({
  kind,
  id: held.id,
  version: held.version,
  before: held.value,
  after: null,
});
