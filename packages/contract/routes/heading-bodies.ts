import { HEADING_KINDS, TAKEN_FIELDS, type HeadingKind, type TakenFields } from '@osier/core/headings';
import { array, boolean, mixed, object, type InferType } from 'yup';
import { id, line, version } from '../inputs';
import { marcBody } from '../objects/sent-record';
import { string } from '../values';
import { leaveOut, page, reviewed } from './reviews';

/** A form of a heading as it is typed: `$aReedman, Amos,$d1880-1950`. */
const typedForm = () => line(2000);
/** Headings that are merged into one, or one that gets another form, or both. */
export const mergeBody = object({
  kept: id().required(),
  lost: array(id().required())
    .max(50)
    .required()
    .when('form', {
      is: (form: unknown) => !form,
      then: (given) => given.min(1, 'Choose what is merged into the kept form.'),
    }),
  /** The form that the kept heading gets, where it is another than it has. */
  form: typedForm(),
  /** Further fields of the lost authority records that the kept one gets. */
  taken: array(
    mixed<TakenFields>()
      .oneOf([...TAKEN_FIELDS])
      .required(),
  ).default([]),
  token: reviewed(),
});
export type MergeBody = InferType<typeof mergeBody>;
/** A page of the review of a merge. */
export const mergeReviewBody = mergeBody.shape(page);
/** All groups that are the same, or all see-froms that records carry; of a kind and vocabulary where that is said. */
export const mergeAllBody = object({
  of: mixed<'same' | 'see-froms'>().oneOf(['same', 'see-froms']).default('same'),
  kind: line(40),
  vocabulary: line(60),
  leaveOut: leaveOut(),
  token: reviewed(),
});
export type MergeAllBody = InferType<typeof mergeAllBody>;
/** A page of its review. */
export const mergeAllReviewBody = mergeAllBody.shape(page);
/** A heading that is made by hand. */
export const addHeadingBody = object({
  kind: mixed<HeadingKind>()
    .oneOf([...HEADING_KINDS])
    .required('Choose a kind.'),
  /** Of a topic or place; names are of one vocabulary. */
  vocabulary: line(40).trim().lowercase().default(''),
  form: typedForm().trim().required('Type the form of the heading.'),
  /** Other forms, by which it is found. */
  seeFroms: array(typedForm().trim().required()).max(50, 'At most 50 see-froms.').default([]),
  /** Where the form was found (670). */
  source: line(500).trim().required('Say where the form was found.'),
  /** It looks like an established one, and is another all the same. */
  withErrors: boolean().default(false),
});
export type AddHeadingBody = InferType<typeof addHeadingBody>;
/** An authority record that is saved, with the version it was made from. Its form (1XX) is changed otherwise, so that records follow. */
export const headingBody = object({ version: version(), marc: marcBody.required() });
export type HeadingBody = InferType<typeof headingBody>;
/** Headings that are deleted: those that no record carries. */
export const deleteHeadingsBody = object({
  headings: array(id().required())
    .min(1, 'Choose a heading.')
    .max(1000, 'At most 1,000 headings at a time.')
    .required(),
  token: reviewed(),
});
export type DeleteHeadingsBody = InferType<typeof deleteHeadingsBody>;
/** A page of its review. */
export const deleteHeadingsReviewBody = deleteHeadingsBody.shape(page);
/** Headings by the places of records in a file. */
export const ontoHeadings = () =>
  array(object({ seq: id().required(), heading: id().required() }).required())
    .max(200)
    .default([]);
/** A file of authority records that was kept when it was loaded, by its digest, and its name. */
export const authorityFileBody = object({
  sha256: string()
    .matches(/^[0-9a-f]{64}$/, 'This is no digest of a file.')
    .required(),
  name: line(200).required(),
  /** The headings that records of the file were chosen for, by their places in it. */
  onto: ontoHeadings(),
  leaveOut: leaveOut(),
  token: reviewed(),
});
export type AuthorityFileBody = InferType<typeof authorityFileBody>;
/** A page of its review. */
export const authorityFileReviewBody = authorityFileBody.shape(page);
/** Records of a heading that go to another one, named by its form: made where no heading has it. */
export const splitBody = object({
  form: typedForm().required('Type the form that the records get.'),
  records: array(id().required())
    .min(1, 'Choose the records that go to the other heading.')
    .max(1000, 'At most 1,000 records are chosen at a time.')
    .required(),
  token: reviewed(),
});
export type SplitBody = InferType<typeof splitBody>;
/** A page of the review of a split. */
export const splitReviewBody = splitBody.shape(page);
/** Headings that are different, each of them from every other, or that are looked at later. */
export const distinctBody = object({
  headings: array(id().required()).min(2, 'Choose two headings.').max(20).required(),
  reason: line(200).default(''),
  later: boolean().default(false),
});

/** Headings that were put by. */
export const takeUpBody = object({
  headings: array(id().required()).min(2, 'Choose two headings.').max(20).required(),
});

/**
 * Lists of headings to be looked after: see-froms that records carry all the same, established headings that no record carries, headings
 * without records, see-alsos that lead nowhere, and what only records have, the most used first.
 */
export const HEADING_LISTS = ['see-froms', 'blind', 'without-records', 'nowhere', 'unestablished'] as const;
export type HeadingList = (typeof HEADING_LISTS)[number];
/** A search for headings: by words or a query, of a kind, of one of the lists. */
export const headingSearchBody = object({
  q: line(1000),
  kind: line(40),
  only: mixed<HeadingList>()
    .oneOf([...HEADING_LISTS])
    .optional(),
});
export type HeadingSearch = InferType<typeof headingSearchBody>;
