import type { LoanState } from '../holdings';

/** What is known of a scanned copy when its withdrawal is weighed. */
export interface Candidate {
  readonly copyId: number;
  readonly holdingId: number;
  readonly recordId: number;
  readonly title: string;
  readonly branch: string;
  /** Code of its location, and how that is called. */
  readonly location: string;
  readonly locationName: string;
  readonly status: string;
  /** Due date when it is on loan, '' when it is not, null when the loans desk could not be asked. */
  readonly due: string | null;
  /** What the loans desk says of it. */
  readonly loan: LoanState;
  /** In hundredths; null when not known. */
  readonly price: number | null;
  /** ISO 4217 code of its price's currency; absent: the library's. */
  readonly currency?: string;
  /** ISO date, or ''. */
  readonly acquired: string;
  /** Which part of a set it is of; '' for a whole. */
  readonly part: string;
  /** Tag of a field of its record that marks it as one to keep; '' for none. */
  readonly keptBy: string;
  /** Name of another open list that it is on; '' for none. */
  readonly onList: string;
}

/** How many copies of the title there are before the list. */
export interface CopyCounts {
  readonly atBranch: number;
  readonly anywhere: number;
  /** Of the same part, where the title comes in several; 0 where it does not. */
  readonly ofPart: number;
  /** Headings that no other record carries. */
  readonly headings: readonly string[];
}

/** A code of a list with the copy that has it. */
export interface Listed {
  readonly code: string;
  readonly candidate: Candidate | null;
  /** A sentence when the code is unknown but can be explained: withdrawn before, a near miss. */
  readonly hint?: string;
  readonly withdrawnBefore?: boolean;
}
