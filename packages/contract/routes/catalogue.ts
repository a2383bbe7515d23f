import { readIsbn } from '@osier/core/access';
import { USED_TERMS, type UsedTerm } from '@osier/core/editing';
import type { FieldDefinition } from '@osier/core/format';
import { COPY_STATUSES, type CopyStatus } from '@osier/core/holdings';
import { array, boolean, mixed, object, type InferType } from 'yup';
import { objectOf, eitherOf, flag, listOf, wordOf, orNull, shape, tally, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { code, id, line, price, version, wholeQuery, wordsIn } from '../inputs';
import { daybookEntrySchema, doneSchema, jobStateSchema, madeSchema, reviewSchema } from '../objects/acts';
import { callNumberOfferSchema, copySchema, holdingSchema, loanState } from '../objects/holdings';
import { briefSchema, briefParts, fieldSchema, findingSchema, marcSchema } from '../objects/marc';
import { string } from '../values';
import { leaveOut, page, reviewed } from './reviews';

/** MARC 21 Specifications for Record Structure: a subfield code and an indicator are one graphic character of ASCII. */
const sentSubfield = object({
  code: string()
    .matches(/^[!-~]$/, 'A subfield code is one letter, digit or mark of ASCII.')
    .required(),
  value: string().max(99999).defined(),
});
const indicator = () =>
  string()
    .matches(/^[ 0-9a-z|]$/, 'An indicator is a blank, a digit or a small letter.')
    .optional();
const sentField = object({
  tag: string()
    .matches(/^[0-9A-Z]{3}$/, 'A tag has three digits.')
    .required(),
  value: string().max(99999).optional(),
  ind1: indicator(),
  ind2: indicator(),
  subfields: array(sentSubfield).max(2000).optional(),
});
/** A record’s leader and fields as they are sent. */
export const marcBody = object({
  leader: string()
    .matches(/^[ -~]{24}$/, 'A leader has 24 characters of ASCII.')
    .required(),
  fields: array(sentField).max(2000).required(),
});
export type MarcBody = InferType<typeof marcBody>;
/** Whether a record is saved although checks find errors in it. */
const withErrors = () => boolean().default(false);
/** A record that is saved, with the version it was made from. */
export const recordBody = object({ version: version(), marc: marcBody.required(), withErrors: withErrors() });
export type RecordBody = InferType<typeof recordBody>;
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
  class: line(60).trim().required('Type the class: the call number begins with it.'),
  branch: code().required('Choose a branch.'),
  location: code().required('Choose a location.'),
  type: code().required('Choose a type.'),
  price: price().default(null),
  status: mixed<(typeof BRIEF_STATUSES)[number]>()
    .oneOf([...BRIEF_STATUSES], 'Choose a status.')
    .default('available'),
  barcode: line(40).trim().required('Scan or type a barcode.'),
  /** Keep a barcode that is not in the house's form, on purpose. */
  keepBarcode: boolean().default(false),
  despite: despite(),
});
export type BriefBody = InferType<typeof briefBody>;

const alikeRow = shape({
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
});
/** A version of a record: what an entry of the daybook left it as. */
export type VersionRow = ValueOf<typeof versionRow>;

/** What a list of records may be sorted by, beside relevance: title, name of the first entry, latest year, last added. */
export const RECORD_ORDERS = ['title', 'name', 'year', 'added'] as const;
export type RecordOrder = (typeof RECORD_ORDERS)[number];

/** A search of the catalogue: words as in the scan line, facets, and where it looks, if not everywhere. */
export const searchShape = {
  q: string().max(500).default(''),
  language: string().max(20).optional(),
  branch: string().max(40).optional(),
  material: string().max(40).optional(),
  /** Only what this check has found something in. */
  finding: string().max(60).optional(),
  /** Only what lies on this pile. */
  pile: id().optional(),
  /** Only what was accepted from this delivery. */
  delivery: id().optional(),
  /** Only titles with a copy of this status, of this type, or of both. */
  status: mixed<CopyStatus>()
    .oneOf([...COPY_STATUSES], 'There is no such status.')
    .optional(),
  type: string().max(40).optional(),
  /** Only these, chosen by hand. */
  records: array(id().required()).max(2000, 'At most 2,000 records are chosen by hand.').optional(),
};
/** A search of the catalogue. */
export const searchBody = object(searchShape);
export type SearchBody = InferType<typeof searchBody>;
/** A recipe and the search of the catalogue that it runs over. */
export const cleanRecordsBody = object({
  recipe: line().required(),
  ...searchShape,
  leaveOut: leaveOut(),
  token: reviewed(),
});
export type CleanRecordsBody = InferType<typeof cleanRecordsBody>;
/** A page of the review of a recipe over what a search finds. */
export const cleanRecordsReviewBody = cleanRecordsBody.shape(page);

const recordRow = shape({ ...briefParts, id: whole(), copies: whole(), callNumber: text() });
/** A record as a list shows it. */
export type RecordRow = ValueOf<typeof recordRow>;
const searchAnswer = shape({
  /** What the input was taken for. */
  tookFor: text(),
  /** The pile or delivery that was searched; null for the whole catalogue. */
  within: orNull(text()),
  /** How many there are; when there are more than the server counts, `isMore` says so. */
  total: whole(),
  isMore: flag(),
  rows: listOf(recordRow),
  next: orNull(text()),
});
/** A page of what a search finds, with what its input was taken for. */
export type SearchAnswer = ValueOf<typeof searchAnswer>;
const facetCounts = shape({
  language: tally(),
  branch: tally(),
  material: tally(),
  /** By the rule of the check. */
  finding: tally(),
  /** Only so many of what was found are counted; null for all. */
  covers: orNull(whole()),
});
/** How many of what a search finds are of each language, branch and material. */
export type SearchFacetCounts = ValueOf<typeof facetCounts>;

const lookUp = eitherOf(
  shape({ as: wordOf(['record']), id: whole(), said: text(), copy: whole().optional() }),
  shape({ as: wordOf(['heading']), id: whole(), said: text() }),
  shape({ as: wordOf(['list']), q: text(), said: text() }),
  shape({ as: wordOf(['withdrawn', 'nothing']), said: text() }),
  /** A number that a book has, and no record here. */
  shape({ as: wordOf(['unknown']), q: text(), said: text() }),
);
/** What an input of the scan line leads to. */
export type LookUp = ValueOf<typeof lookUp>;

const suggestion = shape({
  as: wordOf(['record', 'heading', 'copy', 'pile']),
  id: whole(),
  /** The record of a copy. */
  record: orNull(whole()),
  text: text(),
  /** What tells it from others like it: author and year, kind, branch. */
  more: text(),
});
/** Something that what is being typed in the scan line may mean. */
export type Suggestion = ValueOf<typeof suggestion>;

const recordDetail = shape({
  id: whole(),
  version: whole(),
  marc: marcSchema,
  brief: briefSchema,
  findings: listOf(findingSchema),
  holdings: listOf(
    shape({
      id: whole(),
      version: whole(),
      holding: holdingSchema,
      callNumber: text(),
      copies: listOf(
        shape({ id: whole(), version: whole(), copy: copySchema, due: orNull(text()), loan: loanState() }),
      ),
    }),
  ),
  offers: listOf(callNumberOfferSchema),
  headings: listOf(shape({ key: text(), kind: text(), id: whole(), text: text() })),
  history: listOf(daybookEntrySchema),
});
/** A record with its holdings, copies, findings and history. */
export type RecordDetail = ValueOf<typeof recordDetail>;

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
/** Records: search, read, save, clean, export. */
export const recordApi = {
  search: endpoint({
    method: 'get',
    path: '/records',
    summary: 'Search the catalogue: `q` as in the scan line, facets, `after` for the next page',
    permission: 'look',
    query: object({
      q: wordsIn(),
      sort: mixed<RecordOrder>().oneOf([...RECORD_ORDERS], 'Sorted by title, name, year or added.'),
      language: line(20),
      branch: line(40),
      material: line(40),
      finding: line(60),
      status: searchShape.status,
      type: line(40),
      pile: wholeQuery(),
      delivery: wholeQuery(),
      after: line(1000),
    }),
    answer: searchAnswer,
    problems: [404],
  }),
  facets: endpoint({
    method: 'get',
    path: '/records/facets',
    summary: 'Counts by language, branch, material and findings of what a search of the catalogue finds',
    permission: 'look',
    query: object({
      q: wordsIn(),
      pile: wholeQuery(),
      delivery: wholeQuery(),
      status: searchShape.status,
      type: line(40),
    }),
    answer: facetCounts,
    problems: [404],
  }),
  reviewClean: endpoint({
    method: 'post',
    path: '/records/clean/review',
    summary: 'What running a recipe over all that a search finds would do',
    permission: edit,
    body: cleanRecordsReviewBody,
    answer: reviewSchema,
    problems: [404],
  }),
  clean: endpoint({
    method: 'post',
    path: '/records/clean',
    summary: 'Run a recipe over all that a search finds',
    permission: edit,
    body: cleanRecordsBody,
    status: 202,
    answer: jobStateSchema,
    problems: [404],
  }),
  suggest: endpoint({
    method: 'get',
    path: '/suggest',
    summary:
      'Titles, headings, copies and piles that what is being typed in the scan line may mean, the best first',
    permission: 'look',
    query: object({ q: wordsIn() }),
    answer: shape({ rows: listOf(suggestion) }),
  }),
  lookUp: endpoint({
    method: 'get',
    path: '/look-up',
    summary: 'What an input of the scan line leads to',
    permission: 'look',
    query: object({ q: wordsIn() }),
    answer: lookUp,
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
  read: endpoint({
    method: 'get',
    path: '/records/:id',
    summary: 'A record with holdings, copies, findings and history',
    permission: 'look',
    answer: recordDetail,
  }),
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
  versions: endpoint({
    method: 'get',
    path: '/records/:id/versions',
    summary: 'The versions of a record, newest first; `before` an entry for older ones',
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
  save: endpoint({
    method: 'put',
    path: '/records/:id',
    summary: 'Save a record; 409 with the newest when `version` is not it',
    permission: edit,
    body: recordBody,
    answer: shape({ entry: whole(), sentence: text(), version: whole() }),
  }),
  file: endpoint({
    method: 'get',
    path: '/records/:id/export',
    summary: 'A record as a file: `as` iso2709, marcxml or json',
    permission: 'look',
    query: object({ as: line(20) }),
    answer: { media: ['application/marc', 'application/marcxml+xml', 'application/marc-in-json'] },
  }),
  format: endpoint({
    method: 'get',
    path: '/format/:tag',
    summary: 'What MARC 21 says about a field',
    permission: 'look',
    params: { tag: string().required() },
    answer: objectOf<FieldDefinition>(
      'Name, repeatability, indicators, subfields and fixed positions of a field.',
    ),
  }),
};
