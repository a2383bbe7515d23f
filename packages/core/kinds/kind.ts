import type { AccessPoint } from '../access';
import type { Checker } from '../checks';

/** What a computed column holds: text, a whole number, or either of them or nothing. */
export type ColumnValue = string | number | null;
/** How a computed column is declared in the database. */
export type ColumnType = 'text' | 'integer';

/** A condition on one column: that it is a value (or null), or is above a number. */
export type ColumnTest =
  | { readonly column: string; readonly is: string | number | null }
  | { readonly column: string; readonly above: number };

/** Columns that no two objects of a kind share, among those that a test holds for. */
export interface Once {
  readonly columns: readonly string[];
  readonly among?: ColumnTest;
  /** Letters are the same in either case. */
  readonly anyCase?: boolean;
}

/** What an object hangs on. */
export interface Parent<T, P extends string = string> {
  readonly kind: P;
  /** The field of the value that names the parent, and the column that keeps it. */
  readonly field: keyof T & string;
  readonly column: string;
  /** Only objects for which this holds count as hanging on it. */
  readonly among?: ColumnTest;
  /**
   * What becomes of the object when its parent goes. `holds`: the parent cannot go while the object is there.
   * `stays`: the parent may go and comes back to it; only taking back the making of the parent is refused.
   */
  readonly whenGone: 'holds' | 'stays';
  /** The object need not have this parent. */
  readonly optional?: boolean;
}

/** The access points of a kind by where a store keeps them. */
export interface KindAccess<T> {
  /** In a full-text index, a column each, in the order of their rank. */
  readonly words?: readonly AccessPoint<T>[];
  /** As keys, of which an object may have several at a point. */
  readonly keys?: readonly AccessPoint<T>[];
  /** As texts that are counted as they are written, to complete what is typed. */
  readonly terms?: readonly AccessPoint<T>[];
  /** In the column of the same name. */
  readonly columns?: readonly AccessPoint<T>[];
}

/** All that is known of one kind of object. `C` are the names of its computed columns, `I` those that it inherits. */
export interface KindDescriptor<K extends string, T, C extends string = string, I extends string = string> {
  readonly kind: K;
  /** One of them, and several, as a sentence says it. */
  readonly noun: readonly [one: string, many: string];
  /** What a person calls an object of this kind. */
  readonly label: (value: T, id: number) => string;
  readonly table: string;
  /** Columns that are computed from the value, for lists, conditions and orders. */
  readonly columns: { readonly [N in C]: ColumnType };
  /** It rises when what is computed becomes another; a store then computes the columns anew. 1 where it is not given. */
  readonly computed?: number;
  /** The columns of a value; the checker has the house rules. */
  readonly compute: (value: T, checker: Checker) => { readonly [N in C]: ColumnValue };
  /** Columns copied from a parent when a row is written: `record` of the `holding`, say. */
  readonly inherited?: { readonly [N in I]: { readonly from: string; readonly column: string } };
  /** How it is found, sorted and counted: the registry that search, sort orders, facets and matching read. */
  readonly access?: KindAccess<T>;
  readonly parents: readonly Parent<T>[];
  /** A removed object's row is kept and marked `gone`: for its coming back, or because its list is kept for ever. */
  readonly keepsRemoved?: boolean;
  readonly once?: readonly Once[];
  /** A setting of the library: there is just the object with this id. */
  readonly single?: number;
}

/** Declares a kind; the value type is given, the rest is inferred. */
export const describeKind =
  <T>() =>
  <const K extends string, C extends string, I extends string = never>(
    descriptor: KindDescriptor<K, T, C, I>,
  ): KindDescriptor<K, T, C, I> =>
    descriptor;
