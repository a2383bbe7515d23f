/** How many records and copies came to what. */
export interface AcceptTotals {
  added: number;
  replaced: number;
  merged: number;
  copiesOnly: number;
  skipped: number;
  asked: number;
  copies: number;
  newHeadings: number;
  /** Forms that gave way to the kept ones of their headings. */
  keptForms: number;
}
/** Nothing yet. */
export const NO_TOTALS: AcceptTotals = {
  added: 0,
  replaced: 0,
  merged: 0,
  copiesOnly: 0,
  skipped: 0,
  asked: 0,
  copies: 0,
  newHeadings: 0,
  keptForms: 0,
};

/** Adds what came to what to running totals. */
export function addTotals(totals: AcceptTotals, more: AcceptTotals): void {
  totals.added += more.added;
  totals.replaced += more.replaced;
  totals.merged += more.merged;
  totals.copiesOnly += more.copiesOnly;
  totals.skipped += more.skipped;
  totals.asked += more.asked;
  totals.copies += more.copies;
  totals.newHeadings += more.newHeadings;
  totals.keptForms += more.keptForms;
}
