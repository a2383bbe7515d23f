import type { CallNumber } from '../callnumbers';
import type { Id } from '../changes';
import { fold } from '../text';

/** A title at a branch and location under a call number (MARC 852). */
export interface Holding extends CallNumber {
  readonly record: Id<'record'>;
  readonly branch: string;
  readonly location: string;
  /** For the public, and for the staff alone. */
  readonly note: string;
  readonly staffNote?: string;
}

/** How a copy may stand. */
export const COPY_STATUSES = [
  'available',
  'on order',
  'in process',
  'in transit',
  'missing',
  'lost',
  'reserved',
  'damaged',
  'in repair',
] as const;
export type CopyStatus = (typeof COPY_STATUSES)[number];

/** How a copy may be used. */
export const LOAN_RULES = ['lends', 'reference', 'restricted'] as const;
export type LoanRule = (typeof LOAN_RULES)[number];

/** One thing in the hand (MARC 876). */
export interface Copy {
  readonly holding: Id<'holding'>;
  readonly barcode: string;
  /** Which part or volume it is of (MARC 876 $3), as written on it: "v. 2". Absent: the title is one whole. */
  readonly part?: string;
  /** Among the title's copies of the same part; 0 where copies are not counted. */
  readonly number: number;
  readonly type: string;
  /** In hundredths; null when not known. */
  readonly price: number | null;
  /** The currency of its price (ISO 4217); absent: the library's. */
  readonly currency?: string;
  readonly fund: string;
  readonly supplier: string;
  /** ISO date, or ''. */
  readonly acquired: string;
  readonly condition: string;
  readonly note: string;
  readonly staffNote?: string;
  /** Absent: it lends. */
  readonly loanRule?: LoanRule;
  readonly status: CopyStatus;
  /** ISO date, or ''. */
  readonly lastSeen: string;
  /** How often it was lent, as the loans desk counted; absent where no figures were loaded for it. */
  readonly loans?: number;
  /** The last day on which it was lent (ISO date); absent where none is known. */
  readonly lastLoan?: string;
  /** What it has in the local fields of the library, in their order; absent: nothing. */
  readonly local?: readonly LocalValue[];
}

/** What a copy has in a local field of the library. */
export interface LocalValue {
  /** The number of the field. */
  readonly field: number;
  readonly value: string;
}

/** The form in which two parts of a title are the same one: "V. 2" is "v 2"; '' for the whole. */
export const partKey = (part: string | undefined): string => fold(part ?? '');

/** "copy 2", or "v. 1, copy 2" where a title comes in parts. */
export const copyName = ({ part, number }: Pick<Copy, 'part' | 'number'>): string =>
  `${part ? `${part}, ` : ''}copy ${number}`;

/** A copy that was withdrawn, as the register keeps it for ever. */
export interface Withdrawn {
  readonly copy: Copy;
  readonly copyId: Id<'copy'>;
  readonly record: Id<'record'>;
  readonly title: string;
  readonly branch: string;
  readonly location: string;
  readonly callNumber: string;
  readonly withdrawnOn: string;
  readonly by: string;
  readonly reason: string;
  /** It was the last copy anywhere: the union catalogue must be told. */
  readonly lastCopy: boolean;
  /** Absent in rows from before these were kept. */
  readonly author?: string;
  readonly list?: string;
  /** Who prepared the list; `by` confirmed it. */
  readonly preparedBy?: string;
  /** What was said against it when it was confirmed all the same. */
  readonly despite?: readonly string[];
  /** Why the head overruled what stopped it. */
  readonly overruled?: string;
}

/** A code and what it stands for. */
export interface Coded {
  readonly code: string;
  readonly name: string;
}

/** The short code lists that the library keeps. */
export interface CodeLists {
  readonly branches: readonly Coded[];
  readonly locations: readonly (Coded & { readonly branch: string })[];
  readonly types: readonly (Coded & { readonly price: number | null })[];
  /** Where the money for a copy came from. */
  readonly funds: readonly Coded[];
  readonly suppliers: readonly Coded[];
}

/** Lists of a library that has set up none. */
export const NO_LISTS: CodeLists = { branches: [], locations: [], types: [], funds: [], suppliers: [] };
