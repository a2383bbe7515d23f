import { alikeAmong, type ComparedHeading, type LookAlike } from '@osier/core/headings';
import { pairsOf, type Compared, type RecordPair } from '@osier/core/duplicates';
import type { NameMates } from '../projections/alike-names';
import { keptJson } from '../store/kept-json';
import { resting } from './resting';

/** Pairs of names that look alike. */
export function compareNames({ names, buckets, own }: NameMates): LookAlike[] {
  const read = names.map((name) => keptJson<ComparedHeading>(name));
  const byId = new Map(read.map((n) => [n.id, n]));
  const inBucket = new Map(buckets);
  return Array.from(resting(own), ([heading, some]) => {
    const one = byId.get(heading);
    if (!one) return [];
    const others = new Set(some.flatMap((bucket) => inBucket.get(bucket) ?? []));
    return alikeAmong(
      one,
      [...others].flatMap((id) => byId.get(id) ?? []),
    );
  }).flat();
}

/** Pairs of records that may be one, among those that share a key. */
export const pairRecords = (compared: readonly Compared[]): RecordPair[] => pairsOf(resting(compared));

export { readForms } from './read-forms';
export { compareMet, indexAll, meetingOf, readAll, nameRows } from './all-names';
export { reckonStocktake } from './reckon-stocktake';
export { readLoanFigures } from './read-loan-figures';
export { readScanList } from './read-scan-list';
export { readAnswer } from '../neighbours/read-answer';
export { readNames } from '../registry/read-names';
