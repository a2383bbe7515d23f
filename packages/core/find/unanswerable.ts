/** Diagnostics of SRU that we give (SRU diagnostics list, info:srw/diagnostic/1). */
export const CODE = {
  syntax: 10,
  tooMany: 12,
  contextSet: 15,
  index: 16,
  relation: 19,
  modifier: 20,
  noTerm: 27,
  masking: 28,
  anchoring: 31,
  boolean: 37,
  booleanModifier: 46,
  termForm: 36,
  sort: 80,
} as const;
/** Conditions that one query may have. */
export const MOST_CLAUSES = 100;
/** How deep they may stand in one another. */
export const DEEPEST = 20;
/** Words that one condition may have. */
export const MOST_WORDS = 60;

/** That a query cannot be answered: the sentence why, its diagnostic of SRU, and what it is about. */
export class Unanswerable extends Error {
  constructor(
    readonly code: number,
    message: string,
    readonly details: string,
  ) {
    super(message);
  }
}
