import { lookAlikes, type LookAlike, type NumberedHeading } from '@osier/core/headings';

/** What comparing names is given. */
export interface NamesToCompare {
  readonly headings: readonly NumberedHeading[];
  readonly touched: readonly number[];
}

/** Pairs of names that look alike, with one of those that were touched in each. */
export const compareNames = ({ headings, touched }: NamesToCompare): LookAlike[] =>
  lookAlikes(headings, () => false, new Set(touched));
