import type { Id } from '../changes';
import type { Stretch } from './stretch';

/** A stocktake of a stretch. */
export interface Stocktake {
  readonly name: string;
  readonly stretch: Stretch;
  readonly state: 'open' | 'closed';
  /** ISO dates. */
  readonly startedOn: string;
  readonly closedOn: string;
  readonly seenSince: string;
}

/** Scans loaded together, in the order of the walk. */
export interface ScanBatch {
  readonly stocktake: Id<'stocktake'>;
  readonly name: string;
  readonly on: string;
  readonly codes: readonly string[];
}
