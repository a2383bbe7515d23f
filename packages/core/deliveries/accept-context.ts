import type { Id, Versioned } from '../changes';
import type { Followed, HeadingReader, HeadingUse } from '../headings';
import type { Holding } from '../holdings';
import type { HouseRules } from '../house';
import type { MarcRecord } from '../marc';
import type { IncomingRecord } from './incoming';

/** What a plan of accepting needs to know of the catalogue. */
export interface AcceptContext {
  /** With the delivery's protected fields. */
  readonly house: HouseRules;
  /** ISO date on which copies are acquired. */
  readonly today: string;
  /** The held records that are replaced, merged into or get copies. */
  readonly held: ReadonlyMap<number, Versioned<MarcRecord, 'record'>>;
  /** Their holdings. */
  readonly holdings: ReadonlyMap<number, readonly Versioned<Holding, 'holding'>[]>;
  /** The numbers that the copies of a record's part (by its `partKey`) have. */
  readonly copyNumbers: (record: number, part: string) => readonly number[];
  /** Whether a heading, or a see-from that leads to one, is there already. */
  readonly knowsHeading: (use: HeadingUse) => boolean;
  /** Reads the headings of records, each record once. */
  readonly headingsOf: HeadingReader;
  /** Headings whose see-froms the records may carry. */
  readonly followed: readonly Followed[];
  /** Whether a record of this delivery that was accepted before replaced this one. */
  readonly replacedBefore: (target: number) => boolean;
  /** Records that came into the catalogue since the delivery was looked at and are the same as this one. */
  readonly heldSince: (incoming: IncomingRecord) => number | null;
  /** The title that has a barcode, or null. */
  readonly barcodeTaken: (barcode: string) => string | null;
  /** That a barcode was given up (its label is spoiled, its copy withdrawn), as a sentence, or null. */
  readonly barcodeGivenUp: (barcode: string) => string | null;
  /** The next free barcode of the delivery's label roll; null when there is none. */
  readonly nextBarcode: () => string | null;
  readonly nextId: <K extends 'record' | 'heading' | 'holding' | 'copy'>(kind: K) => Id<K>;
}
