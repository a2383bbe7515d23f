import { readIsbn } from '@osier/core/access';
import { USED_TERMS, type UsedTerm } from '@osier/core/editing';
import type { CopyStatus } from '@osier/core/holdings';
import { array, boolean, mixed, object, type InferType } from 'yup';
import { flag, listOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { code, currency, id, line, price, version, wholeQuery, wordsIn } from '../inputs';
import { doneSchema, madeSchema, reviewSchema } from '../objects/acts';
import { fieldSchema, marcSchema } from '../objects/marc';
import { marcBody, withErrors } from '../objects/sent-record';
import { string } from '../values';
import { page, reviewed } from './reviews';

/** Records that were shown as looking like a new one, and are another thing all the same. */
const despite = () => array(id().required()).max(100).default([]);
/** A new record. */
export const newRecordBody = object({
  marc: marcBody.required(),
  withErrors: withErrors(),
  despite: despite(),
});
export type NewRecordBody = InferType<typeof newRecordBody>;

/** How a book that has only a brief record yet may stand. */
export const BRIEF_STATUSES = [
  'available',
  'in process',
  'in transit',
] as const satisfies readonly CopyStatus[];
/** A book that is entered with the little that is known of it: record, holding and copy. */
export const briefBody = object({
  title: line(500).trim().required('Type the title.'),
  name: line(200).trim().default(''),
  isbn: line(40)
    .trim()
    .test('isbn', 'This is no ISBN: check its digits.', (v) => !v || !!readIsbn(v)?.isbn13)
    .default(''),
  year: string()
    .trim()
    .matches(/^(\d{4})?$/, 'A year has four digits.')
    .default(''),
  /** MARC code of its language. */
  language: string()
    .matches(/^[a-z]{3}$/, 'Choose a language.')
    .default('eng'),
  class: line(60).trim().required('Type the class: the call number begins with it.'),
  branch: code().required('Choose a branch.'),
  location: code().required('Choose a location.'),
  type: code().required('Choose a type.'),
  price: price().default(null),
  currency: currency().default(''),
  status: mixed<(typeof BRIEF_STATUSES)[number]>()
    .oneOf([...BRIEF_STATUSES], 'Choose a status.')
    .default('available'),
  barcode: line(40).trim().required('Scan or type a barcode.'),
  /** Keep a barcode that is not in the house's form, on purpose. */
  keepBarcode: boolean().default(false),
  despite: despite(),
});
export type BriefBody = InferType<typeof briefBody>;

/** A record of the catalogue that may be the same as another one. */
export const alikeRow = shape({
  record: whole(),
  title: text(),
  author: text(),
  year: text(),
  /** It is surely the same. */
  sure: flag(),
  /** What they share, as sentences. */
  shared: listOf(text()),
  doubts: listOf(text()),
  copies: whole(),
  /** Codes of the branches that have it. */
  branches: listOf(text()),
});
/** A record of the catalogue that may be the same as another one. */
export type AlikeRow = ValueOf<typeof alikeRow>;

/** Records that are merged into one, and what that becomes. */
export const mergeRecordsBody = object({
  base: id().required(),
  /** The version of the kept record that its fields were chosen from. */
  version: version(),
  withErrors: withErrors(),
  lost: array(id().required())
    .min(1, 'Choose what is merged into the record.')
    .max(3, 'At most four records are merged at once.')
    .required(),
  marc: marcBody.required(),
  token: reviewed(),
});
export type MergeRecordsBody = InferType<typeof mergeRecordsBody>;
/** A page of the review of a merge of records. */
export const mergeRecordsReviewBody = mergeRecordsBody.shape(page);
/** Two records that are two titles, and why. */
export const apartBody = object({
  a: id().required(),
  b: id().required(),
  reason: line(200).trim().default(''),
});

const alikeGroup = shape({
  records: listOf(
    shape({
      id: whole(),
      title: text(),
      author: text(),
      year: text(),
      copies: whole(),
      branches: listOf(text()),
    }),
  ),
  sure: flag(),
  pairs: listOf(shape({ a: whole(), b: whole(), why: text(), sure: flag() })),
});
/** Records that may be one title, with why. */
export type AlikeGroupRow = ValueOf<typeof alikeGroup>;
const alikePage = shape({
  rows: listOf(alikeGroup),
  next: orNull(text()),
  total: whole(),
  /** Records that are still to be compared, so that there may be more groups. */
  comparing: whole(),
});
/** A page of groups of records that may be one, the surest first. */
export type AlikePage = ValueOf<typeof alikePage>;

const versionRow = shape({
  entry: whole(),
  at: text(),
  person: text(),
  sentence: text(),
  /** The entry changed the record itself, so that there is a version of it; any other changed what hangs on it. */
  isVersion: flag(),
});
/** What an entry of the daybook did to a record: a version of it, or something with its holdings and copies. */
export type VersionRow = ValueOf<typeof versionRow>;

const completionRow = shape({
  text: text(),
  /** The see-from that was typed; '' where the kept form was. */
  via: text(),
  records: whole(),
  /** The number of the heading; 0 for a term that is none. */
  heading: whole(),
  /** The heading has an authority record of its own, with sources or other forms, and was not only made for a record. */
  isEstablished: flag(),
  /** The 1XX field of the heading. */
  kept: orNull(fieldSchema),
});
/** Something that what is being typed in a subfield may become. */
export type CompletionRow = ValueOf<typeof completionRow>;

const edit = 'edit records' as const;
/** The record desk: making, merging and deleting records, their versions, completing what is typed. */
export const recordDeskApi = {
  alike: endpoint({
    method: 'get',
    path: '/records/alike',
    summary: 'Groups of records that may be one title, the surest first, a page from `after` on',
    permission: 'look',
    query: object({ after: line(1000) }),
    answer: alikePage,
  }),
  reviewMerge: endpoint({
    method: 'post',
    path: '/records/merge/review',
    summary: 'What merging records would change',
    permission: edit,
    body: mergeRecordsReviewBody,
    answer: reviewSchema,
    problems: [404],
  }),
  merge: endpoint({
    method: 'post',
    path: '/records/merge',
    summary: 'Merge records into one: holdings, copies and piles move, the numbers of the others lead to it',
    permission: edit,
    body: mergeRecordsBody,
    answer: doneSchema,
    problems: [404],
  }),
  keepApart: endpoint({
    method: 'post',
    path: '/records/apart',
    summary: 'Record that two records are two titles',
    permission: edit,
    body: apartBody,
    answer: doneSchema,
    problems: [404],
  }),
  likely: endpoint({
    method: 'post',
    path: '/records/likely',
    summary: 'Records of the catalogue that may be the same as a new one, the surest first',
    permission: 'look',
    body: object({ marc: marcBody.required() }),
    answer: shape({ rows: listOf(alikeRow) }),
  }),
  make: endpoint({
    method: 'post',
    path: '/records',
    summary: 'Add a record; 409 when records look like it that `despite` does not name',
    permission: edit,
    body: newRecordBody,
    status: 201,
    answer: madeSchema,
  }),
  makeBrief: endpoint({
    method: 'post',
    path: '/records/brief',
    summary: 'Add a brief record with its holding and copy',
    permission: edit,
    body: briefBody,
    status: 201,
    answer: madeSchema,
  }),
  remove: endpoint({
    method: 'post',
    path: '/records/:id/remove',
    summary: 'Delete a record on which no copy hangs, with its holdings',
    permission: edit,
    body: object({ version: version() }),
    answer: doneSchema,
    problems: [404],
  }),
  suppress: endpoint({
    method: 'post',
    path: '/records/:id/suppress',
    summary: 'Suppress a record from the public, or show it again',
    permission: edit,
    body: object({ isSuppressed: boolean().required() }),
    answer: doneSchema,
    problems: [404],
  }),
  versions: endpoint({
    method: 'get',
    path: '/records/:id/versions',
    summary:
      'The versions of a record, and what was done with its holdings and copies, newest first; `before` an entry for older ones',
    permission: 'look',
    query: object({ before: wholeQuery() }),
    answer: shape({ rows: listOf(versionRow), next: orNull(whole()) }),
  }),
  version: endpoint({
    method: 'get',
    path: '/records/:id/versions/:entry',
    summary: 'A record as an entry of the daybook left it; null where that deleted it',
    permission: 'look',
    answer: shape({ entry: whole(), marc: marcSchema.nullable() }),
    problems: [404],
  }),
  complete: endpoint({
    method: 'get',
    path: '/complete',
    summary: 'Headings, publishers, places or series that begin as typed, with the records that have them',
    permission: 'look',
    query: object({
      from: mixed<'heading' | UsedTerm>().oneOf(['heading', ...USED_TERMS]),
      tag: string().matches(/^\d{3}$/, 'A tag has three digits.'),
      ind2: string().max(1),
      /** $2 of a subject field. */
      source: line(20),
      q: wordsIn(),
    }),
    answer: shape({ rows: listOf(completionRow) }),
  }),
};
