import {
  alikeBuckets,
  bucketsIn,
  comparedHeading,
  type ComparedHeading,
  type Heading,
} from '@osier/core/headings';
import type { NameRead, WaitingName } from '../projections/alike-names';
import { keptJson } from '../store/kept-json';

/** Headings as they are compared, with their buckets; those that are compared with none without a name. */
export const readForms = (waiting: readonly WaitingName[]): NameRead[] =>
  waiting.map(({ id, value, before: name }) => {
    const heading = value === '' ? null : comparedHeading({ id, heading: keptJson<Heading>(value) });
    const before = name ? bucketsIn(alikeBuckets(keptJson<ComparedHeading>(name))) : [];
    return heading
      ? { id, name: JSON.stringify(heading), buckets: alikeBuckets(heading), before }
      : { id, name: null, buckets: { exact: [], words: [] }, before };
  });
