import type { IncomingRecord } from './incoming';

/** What the catalogue does not know of a plan before it is written, and the plan behind it must. */
export interface Unwritten {
  /** Identities of the headings that it makes. */
  readonly headings: ReadonlySet<string>;
  /** Barcodes that it gives to copies. */
  readonly barcodes: ReadonlySet<string>;
  /** Held records that it replaces, merges into or gives copies. */
  readonly targets: ReadonlySet<number>;
}

/** Before the first plan. */
export const NOTHING_UNWRITTEN: Unwritten = { headings: new Set(), barcodes: new Set(), targets: new Set() };

/**
 * Whether incoming records can be planned behind a plan that is not written yet: none of them is about a held record that it changes, which must be
 * read as it then stands.
 */
export const canBePlannedBehind = (before: Unwritten, incoming: readonly IncomingRecord[]): boolean =>
  incoming.every(({ value }) => value.target === null || !before.targets.has(value.target));
