import type { KeptLimits } from './withdrawal-limits';
import type { BarcodeRule } from '../barcodes';
import type { CallNumberRule } from '../callnumbers';

/** A shared file of names outside, which answers SRU with authority records (MARC 21 Authority). */
export interface Registry {
  readonly name: string;
  /** Its SRU address; '' for no registry. */
  readonly address: string;
  /** The code by which its numbers are known (003). */
  readonly agency: string;
}

/** What this library has decided. One value, edited in Set-up, given to every check, recipe and offer. */
export interface HouseRules {
  /** Digits kept after the point of a class number. */
  readonly classDecimals: number;
  /** Letters of the surname in the author mark; 0 for none. */
  readonly cutterLetters: number;
  /** How call numbers are made at some places, for some types and works; the first that fits, else by the two above. */
  readonly callNumbers: readonly CallNumberRule[];
  /** Prefixes of call numbers in the order in which they stand on the shelf; absent: by the alphabet. */
  readonly prefixOrder?: readonly string[];
  /** Subdivisions ($x or $v) that are dropped here, as text. */
  readonly droppedSubdivisions: readonly string[];
  /** Tags of ours that survive a replacement; `.` stands for any digit. */
  readonly protectedFields: readonly string[];
  /** What barcodes of copies and readers' cards look like; none means that anything unique is taken. */
  readonly barcodes: readonly BarcodeRule[];
  /** Copies in a row not scanned that make a jumped stretch. */
  readonly jumpLength: number;
  /** Statuses beside "available" whose copies are expected on the shelf; absent: reserved and damaged. */
  readonly standing?: readonly ('reserved' | 'damaged')[];
  /** Subject systems that are used here, by their code in 6XX $2 (lcsh, mesh, …); none means all are. */
  readonly thesauri: readonly string[];
  /** Whether records here have the marks of the ISBD between their parts. */
  readonly punctuation: 'kept' | 'left out';
  /** How the first word after an initial article begins, where it is no name: libraries differ. */
  readonly wordAfterArticle: 'small' | 'capital' | 'as it comes';
  /** ISO 4217 code of the currency that prices are kept in. */
  readonly currency: string;
  /** When a copy is looked at twice before it is withdrawn; absent: as in a house that has set up nothing. */
  readonly withdrawals?: KeptLimits;
  /** Neighbours are asked one after another until one has it, or all at once; absent: in turn. */
  readonly askNeighbours?: 'in turn' | 'at once';
  /** Neighbours are asked every night for the full records of brief ones; absent: they are. */
  readonly askAtNight?: boolean;
  /** Days after which a brief record without its full one is told as waiting long; absent: 60. */
  readonly briefDays?: number;
  /** Other catalogues may search this one by SRU, without signing in; absent: they may not. */
  readonly answersOthers?: boolean;
  /** MARC code of the language that is catalogued in (040 $b); absent: English. */
  readonly cataloguingLanguage?: string;
  /** Where the forms of names are settled for many libraries; absent: nowhere. */
  readonly registry?: Registry;
  /** Exported records have the numbers of their headings ($0); absent: they have not. */
  readonly writesNumbers?: boolean;
  /** Rules of checks that are switched off. */
  readonly checksOff: readonly string[];
  /** What is on this library's lists now; filled in from them, not edited as a rule. */
  readonly codes?: { readonly branches: readonly string[]; readonly locations: readonly string[] };
}

/** The rules of a house that has set up none. */
export const DEFAULT_HOUSE: HouseRules = {
  classDecimals: 2,
  cutterLetters: 3,
  callNumbers: [],
  droppedSubdivisions: ['Juvenile literature'],
  protectedFields: ['09.', '59.', '69.', '9..'],
  barcodes: [],
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

/** House rules as they were kept before a library could have several rules for barcodes. */
interface FormerBarcode {
  readonly length: number;
  readonly kind: string;
  readonly library: string;
}

/** House rules as they are now, of those that were kept at any time, with today's beginning for what they lack. */
export function houseNow(kept: Partial<HouseRules> & { readonly barcode?: FormerBarcode }): HouseRules {
  const { barcode, ...rest } = kept;
  const former = barcode && rest.barcodes === undefined ? { barcodes: rulesOf(barcode) } : {};
  return { ...DEFAULT_HOUSE, ...former, ...rest };
}

/** Digits with a check digit modulo 10; where copies begin with 3, readers' cards begin with 2 (common practice, no source). */
function rulesOf({ length, kind, library }: FormerBarcode): BarcodeRule[] {
  const rule = (of: BarcodeRule['of'], prefix: string): BarcodeRule => ({
    of,
    prefix,
    form: '9'.repeat(Math.max(1, length - prefix.length)),
    check: 'mod10',
  });
  return [rule('copy', kind + library), ...(kind === '3' ? [rule('reader', `2${library}`)] : [])];
}
