import {
  alikeBuckets,
  bucketsIn,
  comparedHeading,
  type ComparedHeading,
  type Heading,
} from '@osier/core/headings';
import type { NameRead, WaitingName } from '../projections/alike-names';
import { keptJson } from '../store/kept-json';
import { resting } from './resting';

/** Headings as they are compared, with their buckets; those that are compared with none without a name. */
export const readForms = (waiting: readonly WaitingName[]): NameRead[] =>
  Array.from(resting(waiting), ({ id, value, before: last }) => {
    const heading = value === '' ? null : comparedHeading({ id, heading: keptJson<Heading>(value) });
    const name = heading && JSON.stringify(heading);
    const before = last && last !== name ? bucketsIn(alikeBuckets(keptJson<ComparedHeading>(last))) : [];
    return { id, name, buckets: heading ? alikeBuckets(heading) : { exact: [], words: [] }, before };
  });
