import { array, object } from 'yup';
import { amount, flag, listOf, orNull, shape, text, whole, wordOf } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { id, line } from '../inputs';
import { doneSchema, reviewSchema } from '../objects/acts';
import { marcSchema } from '../objects/marc';
import { page, reviewed } from './reviews';

/** Headings that are merged into one. */
export const mergeBody = object({
  kept: id().required(),
  lost: array(id().required()).min(1, 'Choose what is merged into the kept form.').max(50).required(),
  token: reviewed(),
});
/** A page of the review of a merge. */
export const mergeReviewBody = mergeBody.shape(page);
/** Two headings that are two people. */
export const distinctBody = object({ a: id().required(), b: id().required() });

const rowParts = {
  id: whole(),
  text: text(),
  kind: text(),
  records: whole(),
  mergedInto: orNull(whole()),
};
const headingRow = shape(rowParts);
/** A heading with how many records carry it. */
export type HeadingRow = ValueOf<typeof headingRow>;
const headingPage = shape({ rows: listOf(headingRow), next: orNull(text()) });
/** A page of headings. */
export type HeadingPage = ValueOf<typeof headingPage>;

const lookAlikeGroup = shape({
  headings: listOf(shape({ ...rowParts, seeFrom: listOf(text()), titles: listOf(text()) })),
  pairs: listOf(shape({ a: whole(), b: whole(), score: amount(), why: text() })),
});
/** Headings that may be one, with why. */
export type LookAlikeGroup = ValueOf<typeof lookAlikeGroup>;
const lookAlikePage = shape({
  rows: listOf(lookAlikeGroup),
  /** Where the next page begins; null when there is none. */
  next: orNull(text()),
  total: whole(),
  /** How many names are still to be compared, so that there may be more groups. */
  comparing: whole(),
});
/** A page of groups that look alike, the surest first. */
export type LookAlikePage = ValueOf<typeof lookAlikePage>;

const headingDetail = shape({
  ...rowParts,
  version: whole(),
  marc: marcSchema,
  seeFrom: listOf(text()),
  mergedFrom: listOf(shape({ id: whole(), text: text() })),
  usedBy: listOf(shape({ id: whole(), title: text(), year: text() })),
});
/** A heading with its authority record and what carries it. */
export type HeadingDetail = ValueOf<typeof headingDetail>;

const seenHeadings = shape({
  headings: listOf(
    shape({
      id: whole(),
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

const permission = 'merge headings' as const;
/** Headings: list, look-alikes, merge. */
export const headingApi = {
  list: endpoint({
    method: 'get',
    path: '/headings',
    summary: 'Headings by words, alphabetically',
    permission: 'look',
    query: object({ q: line(1000), kind: line(40), after: line(1000) }),
    answer: headingPage,
  }),
  lookAlikes: endpoint({
    method: 'get',
    path: '/headings/look-alikes',
    summary: 'Groups of headings that look alike, a page from `after` on',
    permission: 'look',
    query: object({ after: line(1000) }),
    answer: lookAlikePage,
  }),
  evidence: endpoint({
    method: 'get',
    path: '/headings/evidence',
    summary: 'What the records of some headings (`ids`, with commas) say for and against their being one',
    permission: 'look',
    query: object({
      ids: line(400)
        .matches(/^\d{1,9}(,\d{1,9}){1,19}$/, 'Two to twenty numbers of headings, with commas between them.')
        .required(),
    }),
    answer: seenHeadings,
    problems: [404],
  }),
  read: endpoint({
    method: 'get',
    path: '/headings/:id',
    summary: 'A heading, its see-froms and the records that use it',
    permission: 'look',
    answer: headingDetail,
  }),
  reviewMerge: endpoint({
    method: 'post',
    path: '/headings/merge/review',
    summary: 'What a merge would change',
    permission,
    body: mergeReviewBody,
    answer: reviewSchema,
    problems: [404, 409],
  }),
  merge: endpoint({
    method: 'post',
    path: '/headings/merge',
    summary: 'Merge headings into one',
    permission,
    body: mergeBody,
    answer: doneSchema,
    problems: [404],
  }),
  keepApart: endpoint({
    method: 'post',
    path: '/headings/distinct',
    summary: 'Record that two headings are different',
    permission,
    body: distinctBody,
    answer: doneSchema,
    problems: [404],
  }),
};
