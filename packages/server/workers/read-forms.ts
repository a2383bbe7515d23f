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

/** A heading as it is compared, with its buckets; one that is compared with none, or is gone, without a name. */
export function readForm(id: number, value: Heading | null, before: ComparedHeading | null): NameRead {
  const heading = value && comparedHeading({ id, heading: value });
  const name = heading && JSON.stringify(heading);
  return {
    id,
    name,
    buckets: heading ? alikeBuckets(heading) : { exact: [], words: [] },
    before: before && JSON.stringify(before) !== name ? bucketsIn(alikeBuckets(before)) : [],
  };
}

/** Headings as they are compared; see `readForm`. */
export const readForms = (waiting: readonly WaitingName[]): NameRead[] =>
  Array.from(resting(waiting), ({ id, value, before }) =>
    readForm(
      id,
      value === '' ? null : keptJson<Heading>(value),
      before ? keptJson<ComparedHeading>(before) : null,
    ),
  );
