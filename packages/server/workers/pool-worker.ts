import { alikePairs, type ComparedHeading, type LookAlike } from '@osier/core/headings';
import { pairsOf, type Compared, type RecordPair } from '@osier/core/duplicates';
import { keptJson } from '../store/kept-json';

/** What comparing names is given: each name as JSON of a `ComparedHeading`. */
export interface NamesToCompare {
  readonly names: readonly string[];
  readonly touched: readonly number[];
}

/** Pairs of names that look alike, with one of those that were touched in each. */
export const compareNames = ({ names, touched }: NamesToCompare): LookAlike[] =>
  alikePairs(
    names.map((name) => keptJson<ComparedHeading>(name)),
    new Set(touched),
  );

/** Pairs of records that may be one, among those that share a key. */
export const pairRecords = (compared: readonly Compared[]): RecordPair[] => pairsOf(compared);

export { reckonStocktake } from './reckon-stocktake';
export { readLoanFigures } from './read-loan-figures';
export { readScanList } from './read-scan-list';
export { readAnswer } from '../neighbours/read-answer';
export { readNames } from '../registry/read-names';
