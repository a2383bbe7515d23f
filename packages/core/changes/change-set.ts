/**
 * The number that names one object of a kind. Ids of two kinds cannot stand for each other; a plain number, as a row or a
 * request brings it, stands for any.
 */
export type Id<K extends string> = number & { readonly kind?: K };

/**
 * One object's change: what it was, what it becomes. `before` null makes a new object, `after` null removes one.
 * `version` is the object's version before the change (0 for a new one); after the commit it is one more.
 */
export interface ChangeOf<K extends string, T> {
  readonly kind: K;
  readonly id: Id<K>;
  readonly version: number;
  readonly before: T | null;
  readonly after: T | null;
}

/** A change of an object of whatever kind. */
export type AnyChange = ChangeOf<string, unknown>;

/** An object as it stands in the store. */
export interface Versioned<T, K extends string = string> {
  readonly id: Id<K>;
  readonly version: number;
  readonly value: T;
}

/** The change that makes a new object. */
export const creation = <K extends string, T>(kind: K, id: Id<K>, after: T): ChangeOf<K, T> => ({
  kind,
  id,
  version: 0,
  before: null,
  after,
});

/** The change that gives an object another value. */
export const update = <K extends string, T>(
  kind: K,
  held: Versioned<T, K>,
  after: NoInfer<T>,
): ChangeOf<K, T> => ({
  kind,
  id: held.id,
  version: held.version,
  before: held.value,
  after,
});

/** The change that takes an object away. */
export const removal = <K extends string, T>(kind: K, held: Versioned<T, K>): ChangeOf<K, T> => ({
  kind,
  id: held.id,
  version: held.version,
  before: held.value,
  after: null,
});
