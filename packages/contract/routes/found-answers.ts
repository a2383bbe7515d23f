import { FIND_ORDERS } from '@osier/core/find';
import { amount, flag, listOf, orNull, shape, tally, text, whole, wordOf } from '../answers';
import type { ValueOf } from '../endpoint';
import { briefParts } from '../objects/marc';

const recordRow = shape({ ...briefParts, id: whole(), copies: whole(), callNumber: text() });
/** A record as a list shows it. */
export type RecordRow = ValueOf<typeof recordRow>;
/** A page of what a search finds, in the contract. */
export const searchAnswer = shape({
  /** What the input was taken for. */
  tookFor: text(),
  /** The pile or delivery that was searched; null for the whole catalogue. */
  within: orNull(text()),
  /** Words of our own that may have been meant, and find something, where nothing was found. */
  meant: orNull(text()),
  /** What the rows are sorted by. */
  sortedBy: wordOf(['relevance', ...FIND_ORDERS]),
  /** How many there are; when there are more than the server counts, `isMore` says so. */
  total: whole(),
  isMore: flag(),
  rows: listOf(recordRow),
  /** A search that looks through all records has got so far, from 0 to 1; null when it is at its end. Ask again for more (`soFar`). */
  running: orNull(amount()),
  next: orNull(text()),
});
/** A page of what a search finds, with what its input was taken for. */
export type SearchAnswer = ValueOf<typeof searchAnswer>;
/** Counts by facet in the contract. */
export const facetCountsAnswer = shape({
  language: tally(),
  branch: tally(),
  material: tally(),
  /** By the rule of the check. */
  finding: tally(),
  /** Only so many of what was found are counted; null for all. */
  covers: orNull(whole()),
});
/** How many of what a search finds are of each language, branch and material. */
export type SearchFacetCounts = ValueOf<typeof facetCountsAnswer>;

/** Further counts in the contract. */
export const furtherAnswer = shape({
  /** For each value the term of an index that finds it, its name and how many have it, the most frequent first. */
  further: listOf(
    shape({
      of: wordOf(['year', 'subject', 'name', 'location', 'supplier', 'delivery', 'changedby']),
      index: text(),
      values: listOf(shape({ term: text(), name: text(), n: whole() })),
    }),
  ),
  /** Only so many of what was found are counted; null for all. */
  covers: orNull(whole()),
});
/** By what a query may be narrowed further. */
export type FurtherCounts = ValueOf<typeof furtherAnswer>;
