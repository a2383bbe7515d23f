/** What this library has decided. One value, edited in Set-up, given to every check, recipe and offer. */
export interface HouseRules {
  /** Digits kept after the point of a class number. */
  readonly classDecimals: number;
  /** Letters of the surname in the author cutter; 0 for none. */
  readonly cutterLetters: number;
  /** Subdivisions ($x or $v) that are dropped here, as text. */
  readonly droppedSubdivisions: readonly string[];
  /** Tags of ours that survive a replacement; `.` stands for any digit. */
  readonly protectedFields: readonly string[];
  /** Length of a barcode, its kind digit for copies and the library's digits. */
  readonly barcode: { readonly length: number; readonly kind: string; readonly library: string };
  /** Copies in a row not scanned that make a jumped stretch. */
  readonly jumpLength: number;
  /** Subject systems that are used here, by their code in 6XX $2 (lcsh, mesh, …); none means all are. */
  readonly thesauri: readonly string[];
  /** Whether records here have the marks of the ISBD between their parts. */
  readonly punctuation: 'kept' | 'left out';
  /** How the first word after an initial article begins, where it is no name: libraries differ. */
  readonly wordAfterArticle: 'small' | 'capital' | 'as it comes';
  /** ISO 4217 code of the currency that prices are kept in. */
  readonly currency: string;
  /** Rules of checks that are switched off. */
  readonly checksOff: readonly string[];
  /** What is on this library's lists now; filled in from them, not edited as a rule. */
  readonly codes?: { readonly branches: readonly string[]; readonly locations: readonly string[] };
}

/** The rules of a house that has set up none. */
export const DEFAULT_HOUSE: HouseRules = {
  classDecimals: 2,
  cutterLetters: 3,
  droppedSubdivisions: ['Juvenile literature'],
  protectedFields: ['09.', '59.', '69.', '9..'],
  barcode: { length: 14, kind: '3', library: '1204' },
  jumpLength: 8,
  thesauri: [],
  punctuation: 'kept',
  wordAfterArticle: 'small',
  currency: 'GBP',
  checksOff: [],
};

/** Whether a field of ours stays when a record is replaced. */
export const isProtected = (tag: string, house: HouseRules): boolean =>
  house.protectedFields.some((pattern) => new RegExp(`^${pattern.replace(/[^0-9.]/g, '')}$`).test(tag));
