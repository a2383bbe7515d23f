import { TAKEN_FIELDS } from '@osier/core/headings';
import { amount, flag, listOf, orNull, shape, text, whole, wordOf } from '../answers';
import type { ValueOf } from '../endpoint';
import { daybookEntrySchema } from '../objects/acts';
import { findingSchema, marcSchema } from '../objects/marc';

const rowParts = {
  id: whole(),
  text: text(),
  kind: text(),
  records: whole(),
  mergedInto: orNull(whole()),
  vocabulary: text(),
  /** A merge over many records is at work on it: it cannot be changed until that has ended. */
  merging: flag(),
};
const headingRow = shape({
  ...rowParts,
  /** Of the list of see-froms that are carried: the heading that it leads to. */
  leadsTo: orNull(shape({ id: whole(), text: text() })),
  /** The see-from that has the words which were looked for, where the kept form has not. */
  knownAs: orNull(text()),
});
/** A heading with how many records carry it. */
export type HeadingRow = ValueOf<typeof headingRow>;
/** A page of headings. */
export const headingPage = shape({ rows: listOf(headingRow), next: orNull(text()) });
/** A page of headings. */
export type HeadingPage = ValueOf<typeof headingPage>;

/** A heading as it stands beside others. */
const shownParts = {
  ...rowParts,
  seeFrom: listOf(text()),
  titles: listOf(text()),
  isEstablished: flag(),
  /** Fields of its authority record that another one may get when it is merged. */
  takeable: listOf(wordOf([...TAKEN_FIELDS])),
};
const shownHeading = shape(shownParts);
export type ShownHeading = ValueOf<typeof shownHeading>;
const lookAlikeGroup = shape({
  headings: listOf(shownHeading),
  pairs: listOf(shape({ a: whole(), b: whole(), score: amount(), why: text() })),
});
/** Headings that may be one, with why. */
export type LookAlikeGroup = ValueOf<typeof lookAlikeGroup>;
/** A page of groups that look alike. */
export const lookAlikePage = shape({
  rows: listOf(lookAlikeGroup),
  /** Where the next page begins; null when there is none. */
  next: orNull(text()),
  total: whole(),
  facets: listOf(
    shape({
      kind: text(),
      vocabulary: text(),
      verdict: wordOf(['same', 'perhaps']),
      later: flag(),
      n: whole(),
    }),
  ),
  /** How many names are still to be compared, so that there may be more groups. */
  comparing: whole(),
});
/** A page of groups that look alike, the surest first. */
export type LookAlikePage = ValueOf<typeof lookAlikePage>;

/** A heading with its authority record and what carries it. */
export const headingDetailSchema = shape({
  ...rowParts,
  version: whole(),
  marc: marcSchema,
  seeFrom: listOf(text()),
  mergedFrom: listOf(shape({ id: whole(), text: text() })),
  usedBy: listOf(shape({ id: whole(), title: text(), year: text() })),
  /** What checks find in the authority record. */
  findings: listOf(findingSchema),
  history: listOf(daybookEntrySchema),
});
/** A heading with its authority record and what carries it. */
export type HeadingDetail = ValueOf<typeof headingDetailSchema>;

/** Headings with what their records say of them, and the pairs among them. */
export const seenHeadings = shape({
  headings: listOf(
    shape({
      ...shownParts,
      /** First and last year of publication of its records. */
      years: orNull(shape({ first: whole(), last: whole() })),
      languages: listOf(text()),
      roles: listOf(text()),
      sources: listOf(text()),
      /** It was looked at in the first of its records only. */
      isPart: flag(),
    }),
  ),
  pairs: listOf(
    shape({
      a: whole(),
      b: whole(),
      verdict: wordOf(['same', 'perhaps', 'different']),
      evidence: listOf(text()),
    }),
  ),
});
/** What the records say of some headings, and whether they are one. */
export type SeenHeadings = ValueOf<typeof seenHeadings>;

/** A merge that was done, or the job that does it where many records carry the headings. */
export const mergedSchema = shape({ entry: orNull(whole()), sentence: text(), job: orNull(whole()) });
export type MergedAnswer = ValueOf<typeof mergedSchema>;
