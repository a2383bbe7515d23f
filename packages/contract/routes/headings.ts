import { TAKEN_FIELDS } from '@osier/core/headings';
import { mixed, object } from 'yup';
import { amount, flag, listOf, orNull, shape, text, whole, wordOf } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { line } from '../inputs';
import { daybookEntrySchema, doneSchema, jobStateSchema, madeSchema, reviewSchema } from '../objects/acts';
import { findingSchema, marcSchema } from '../objects/marc';
import {
  addHeadingBody,
  authorityFileBody,
  authorityFileReviewBody,
  deleteHeadingsBody,
  deleteHeadingsReviewBody,
  distinctBody,
  headingBody,
  headingSearchBody,
  mergeAllBody,
  mergeAllReviewBody,
  mergeBody,
  mergeReviewBody,
  splitBody,
  splitReviewBody,
  takeUpBody,
} from './heading-bodies';

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
const headingPage = shape({ rows: listOf(headingRow), next: orNull(text()) });
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
const lookAlikePage = shape({
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

const headingDetail = shape({
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
export type HeadingDetail = ValueOf<typeof headingDetail>;

const seenHeadings = shape({
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
const mergedSchema = shape({ entry: orNull(whole()), sentence: text(), job: orNull(whole()) });
export type MergedAnswer = ValueOf<typeof mergedSchema>;

const permission = 'merge headings' as const;
/** Headings: list, look-alikes, merge. */
export const headingApi = {
  list: endpoint({
    method: 'get',
    path: '/headings',
    summary: 'Headings by words of their forms, or by a query in CQL, alphabetically',
    permission: 'look',
    query: headingSearchBody.shape({ after: line(1000) }),
    answer: headingPage,
  }),
  lookAlikes: endpoint({
    method: 'get',
    path: '/headings/look-alikes',
    summary: 'Groups of headings that look alike, a page from `after` on',
    permission: 'look',
    query: object({
      kind: line(40),
      vocabulary: line(60),
      verdict: mixed<'same' | 'perhaps'>().oneOf(['same', 'perhaps']).optional(),
      /** Those that are put by. */
      later: mixed<'yes'>().oneOf(['yes']).optional(),
      after: line(1000),
    }),
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
  add: endpoint({
    method: 'post',
    path: '/headings',
    summary: 'Make a heading with its authority record',
    permission: 'merge headings',
    body: addHeadingBody,
    status: 201,
    answer: madeSchema,
  }),
  save: endpoint({
    method: 'put',
    path: '/headings/:id',
    summary: 'Save an authority record; 409 with the newest when `version` is not it',
    permission,
    body: headingBody,
    answer: shape({ entry: whole(), sentence: text(), version: whole() }),
    problems: [404, 409],
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
    answer: mergedSchema,
    problems: [404, 409],
  }),
  reviewMergeAll: endpoint({
    method: 'post',
    path: '/headings/merge-all/review',
    summary: 'What merging all groups that are the same would change',
    permission,
    body: mergeAllReviewBody,
    answer: reviewSchema,
  }),
  mergeAll: endpoint({
    method: 'post',
    path: '/headings/merge-all',
    summary: 'Merge all groups that are the same',
    permission,
    body: mergeAllBody,
    answer: jobStateSchema,
    status: 202,
    problems: [409],
  }),
  reviewDelete: endpoint({
    method: 'post',
    path: '/headings/delete/review',
    summary: 'What deleting headings would change',
    permission,
    body: deleteHeadingsReviewBody,
    answer: reviewSchema,
    problems: [404],
  }),
  delete: endpoint({
    method: 'post',
    path: '/headings/delete',
    summary: 'Delete headings that no record carries',
    permission,
    body: deleteHeadingsBody,
    answer: doneSchema,
    problems: [404, 409],
  }),
  reviewFile: endpoint({
    method: 'post',
    path: '/headings/file/review',
    summary: 'What loading a file of authority records would change',
    permission,
    body: authorityFileReviewBody,
    answer: reviewSchema,
    problems: [404],
  }),
  takeFile: endpoint({
    method: 'post',
    path: '/headings/file',
    summary: 'Load a file of authority records',
    permission,
    body: authorityFileBody,
    answer: jobStateSchema,
    status: 202,
    problems: [404, 409],
  }),
  reviewSplit: endpoint({
    method: 'post',
    path: '/headings/:id/split/review',
    summary: 'What giving some records of a heading to another would change',
    permission,
    body: splitReviewBody,
    answer: reviewSchema,
    problems: [404, 409],
  }),
  split: endpoint({
    method: 'post',
    path: '/headings/:id/split',
    summary: 'Give some records of a heading to another',
    permission,
    body: splitBody,
    answer: doneSchema,
    problems: [404, 409],
  }),
  keepApart: endpoint({
    method: 'post',
    path: '/headings/distinct',
    summary: 'Record that headings are different, or put them by',
    permission,
    body: distinctBody,
    answer: doneSchema,
    problems: [404],
  }),
  takeUp: endpoint({
    method: 'post',
    path: '/headings/take-up',
    summary: 'Take up headings again that were put by',
    permission,
    body: takeUpBody,
    answer: doneSchema,
    problems: [404],
  }),
};
