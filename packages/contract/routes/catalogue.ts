import { FIND_ORDERS, type FindOrder } from '@osier/core/find';
import type { FieldDefinition } from '@osier/core/format';
import { COPY_STATUSES, type CopyStatus } from '@osier/core/holdings';
import { array, mixed, object, type InferType } from 'yup';
import { objectOf, eitherOf, flag, listOf, wordOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { facetCountsAnswer, furtherAnswer, searchAnswer } from './found-answers';
import { holdingsAs, id, line, version, wholeQuery, wordsIn } from '../inputs';
import { daybookEntrySchema, jobStateSchema, reviewSchema } from '../objects/acts';
import { callNumberOfferSchema, copySchema, holdingSchema, loanState } from '../objects/holdings';
import { briefSchema, findingSchema, marcSchema } from '../objects/marc';
import { string } from '../values';
import { leaveOut, page, reviewed } from './reviews';

import { marcBody, withErrors } from '../objects/sent-record';
/** A record that is saved, with the version it was made from. */
export const recordBody = object({ version: version(), marc: marcBody.required(), withErrors: withErrors() });
export type RecordBody = InferType<typeof recordBody>;
/** What a list of records may be sorted by, beside relevance. */
export const RECORD_ORDERS = FIND_ORDERS;
export type RecordOrder = FindOrder;

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
  /** Only what the public does not see. */
  suppressed: mixed<'yes'>().oneOf(['yes']).optional(),
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
  /** The public does not see it. */
  suppressed: flag(),
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

/** What is searched for, and where it looks, as it stands behind a path. */
const searchedPlace = {
  q: wordsIn(),
  pile: wholeQuery(),
  delivery: wholeQuery(),
  status: searchShape.status,
  type: line(40),
  suppressed: searchShape.suppressed,
};
/** The same with what narrows it. */
const placed = {
  ...searchedPlace,
  language: line(20),
  branch: line(40),
  material: line(40),
  finding: line(60),
};

const edit = 'edit records' as const;
/** Records: search, read, save, clean, export. */
export const recordApi = {
  search: endpoint({
    method: 'get',
    path: '/records',
    summary: 'Search the catalogue: `q` as in the scan line, facets, `after` for the next page',
    permission: 'look',
    query: object({
      sort: mixed<RecordOrder>().oneOf(
        [...RECORD_ORDERS],
        'Sorted by title, name, year, callnumber, added or changed.',
      ),
      ...placed,
      after: line(1000),
      /** Of a search that looks through all records, what it has found so far; otherwise the answer waits for its end. */
      soFar: mixed<'yes'>().oneOf(['yes'], 'Write yes, or leave it out.').optional(),
    }),
    answer: searchAnswer,
    problems: [404],
  }),
  facets: endpoint({
    method: 'get',
    path: '/records/facets',
    summary: 'Counts by language, branch, material and findings of what a search of the catalogue finds',
    permission: 'look',
    query: object(searchedPlace),
    answer: facetCountsAnswer,
    problems: [404],
  }),
  further: endpoint({
    method: 'get',
    path: '/records/further',
    summary:
      'By what years, headings, suppliers, deliveries and people a search of the catalogue may be narrowed',
    permission: 'look',
    query: object(searchedPlace),
    answer: furtherAnswer,
    problems: [404],
  }),
  exportFound: endpoint({
    method: 'get',
    path: '/records/export',
    summary:
      'All that a search finds: a table (`as` csv), or records (iso2709, marcxml) with their `holdings` within them (852, 876), apart (853, 863, 866), or none',
    permission: 'look',
    query: object({ ...placed, as: line(20).default('csv'), holdings: holdingsAs() }),
    answer: { media: ['text/csv', 'application/marc', 'application/marcxml+xml'] },
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
  read: endpoint({
    method: 'get',
    path: '/records/:id',
    summary: 'A record with holdings, copies, findings and history',
    permission: 'look',
    answer: recordDetail,
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
    summary:
      'A record as a file: `as` iso2709, marcxml or json; its `holdings` within it (852, 876), apart (853, 863, 866), or none',
    permission: 'look',
    query: object({ as: line(20), holdings: holdingsAs() }),
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
