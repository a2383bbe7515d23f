import type { UnknownWhy } from './code-sense';
import type { Outside } from './counted-copy';

/** What shelf and records may not agree on. */
export const FINDING_KINDS = [
  'missing',
  'skipped',
  'found',
  'elsewhere',
  'misplaced',
  'repeated',
  'misread',
  'unknown',
] as const;
export type StockFindingKind = (typeof FINDING_KINDS)[number];

/**
 * What may be done about a finding; `mark-found-tell`: the loans desk is told that the copy is found; `return`: it checks the copy in; `done`: it was seen to at the shelf or the loans desk, the records
 * stay.
 */
export const SETTLEMENTS = [
  'mark-missing',
  'mark-found',
  'mark-found-tell',
  'return',
  'correct-location',
  'done',
] as const;
export type Settlement = (typeof SETTLEMENTS)[number];

/** One thing that shelf and records do not agree on; it says all that is shown of it, whatever becomes of the copy. */
export interface StockFinding {
  readonly kind: StockFindingKind;
  /** Barcode, or the code that was scanned; of a skipped shelf the barcode of its first copy. */
  readonly code: string;
  readonly copy: number | null;
  readonly record: number | null;
  readonly title: string;
  readonly callNumber: string;
  readonly location: string;
  readonly message: string;
  /** What mends it, the likeliest first. */
  readonly acts: readonly Settlement[];
  /** Other barcodes: near ones of an unknown code, the copy of a misread, the rest of a block that moves together. */
  readonly others: readonly string[];
  /** Copies of a skipped shelf or a block; 1 else. */
  readonly count: number;
}

/** Names of places, for sentences. */
export interface PlaceNames {
  readonly branchName: (code: string) => string;
  readonly locationName: (code: string) => string;
}

const STATUS_SAYS: Readonly<Record<string, string>> = {
  lost: 'Recorded lost but on the shelf. A reader may have been billed for it.',
  missing: 'Recorded missing but on the shelf.',
  'on loan': 'Recorded on loan but on the shelf. The loans desk must check it in.',
  withdrawn: 'Withdrawn; it should not be on the shelf.',
};

/**
 * What is said of a copy on the shelf whose status says that it is not there; `scanned` and `heard` are the days (ISO) on which it was scanned
 * and on which the loans desk said that it is on loan, '' for none.
 */
export function foundSays(status: string, { scanned, heard } = { scanned: '', heard: '' }): string {
  if (status === 'on loan' && scanned !== '' && heard > scanned)
    return `Scanned on ${scanned}; on ${heard} the loans desk had it on loan. It may have been lent in between: look at the day of the loan.`;
  return STATUS_SAYS[status] ?? `Recorded ${status} but on the shelf.`;
}

/** What mends that. What is on loan is left so, or returned; what is withdrawn is put right by hand. Of what is lost a reader may have been billed. */
export function foundActs(status: string): readonly Settlement[] {
  if (status === 'withdrawn') return ['done'];
  if (status === 'on loan') return ['done', 'return'];
  return status === 'lost' || status === 'missing'
    ? ['mark-found', 'mark-found-tell', 'done']
    : ['mark-found', 'done'];
}

/** What is said of a copy that belongs elsewhere. */
export function elsewhereSays(
  copy: {
    readonly branch: string;
    readonly location: string;
    readonly type: string;
    readonly callNumber: string;
  },
  outside: Outside,
  { branchName, locationName }: PlaceNames,
): string {
  if (outside === 'branch') return `Belongs to ${branchName(copy.branch)}.`;
  if (outside === 'location') return `Belongs to ${locationName(copy.location)}.`;
  if (outside === 'type') return `A copy of type ${copy.type}, which this stocktake leaves out.`;
  return `Its call number ${copy.callNumber} is outside this stretch.`;
}

const WHY: Readonly<Record<UnknownWhy, string>> = {
  isbn: 'This is the ISBN on the cover, not the barcode of the copy.',
  reader_card: 'This is a reader’s card.',
  other_library: 'This is the barcode of another library.',
  not_in_file: 'No copy has this barcode.',
  unreadable: 'This is no barcode: it was not read right.',
};

/** What is said of a code that no copy has. */
export const unknownSays = (why: UnknownWhy): string => WHY[why];

/** Between which call numbers a copy belongs. */
export function belongsSays(after: string | null, before: string | null): string {
  if (after !== null && before !== null) return `Out of order: it belongs between ${after} and ${before}.`;
  if (after !== null) return `Out of order: it belongs behind ${after}.`;
  return before === null ? 'Out of order.' : `Out of order: it belongs before ${before}.`;
}
