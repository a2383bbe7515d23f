import type { Id } from '../changes';
import type { ShelfOrder } from './counted-copy';
import type { Settlement, StockFindingKind } from './finding';
import type { Stretch } from './stretch';

/** When a walk is told that it may have passed a shelf. */
export type JumpAlarm =
  | { readonly when: 'never' }
  /** The class number rises by so much from one scan to the next. */
  | { readonly when: 'class'; readonly difference: number }
  /** More than so many expected copies stand between two scans. */
  | { readonly when: 'copies'; readonly number: number };

/** A stocktake of a stretch. */
export interface Stocktake {
  readonly name: string;
  readonly stretch: Stretch;
  /** While it is being closed nothing is scanned or settled. */
  readonly state: 'open' | 'closing' | 'closed';
  /** ISO dates. */
  readonly startedOn: string;
  readonly closedOn: string;
  readonly seenSince: string;
  /** How strictly a shelf is held in order, by location; by call number alone where nothing is said. */
  readonly orders?: Readonly<Record<string, ShelfOrder>>;
  readonly jump?: JumpAlarm;
  /** So many expected copies in a row that nobody scanned are a skipped shelf; absent: as the library has it. */
  readonly skipRun?: number;
  /** Who may scan; absent or empty: whoever may scan at all. */
  readonly scanners?: readonly number[];
}

/** Scans loaded together, in the order of the walk. */
export interface ScanBatch {
  readonly stocktake: Id<'stocktake'>;
  readonly name: string;
  /** Day of the walk (ISO date). */
  readonly on: string;
  readonly codes: readonly string[];
  /** Code of the location that was walked; absent or '': all of the stretch. */
  readonly location?: string;
  /** SHA-256 of the file that it was loaded from. */
  readonly file?: string;
}

/** That a finding was settled: what was done about it, when and by whom. */
export interface Settled {
  readonly stocktake: Id<'stocktake'>;
  readonly finding: StockFindingKind;
  /** Barcode, or the code that was scanned. */
  readonly code: string;
  readonly how: Settlement;
  /** ISO date. */
  readonly on: string;
  /** Of a copy that the loans desk checks in: the ISO date on which it was scanned. */
  readonly seenOn?: string;
  readonly by: string;
}
