import { LINK_RESULTS, type LinkResult } from '@osier/core/links';
import { mixed, object } from 'yup';
import { listOf, orNull, shape, text, whole, wordOf } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { line } from '../inputs';
import { jobStateSchema } from '../objects/acts';

const found = () =>
  shape({
    at: text(),
    result: wordOf<LinkResult>(LINK_RESULTS),
    /** Where it is for good now; '' where that is not said. */
    movedTo: text(),
    sentence: text(),
  });
const linkRow = shape({ url: text(), text: text(), found: orNull(found()) });
/** A link of a record, with what was found when it was tried last. */
export type LinkRow = ValueOf<typeof linkRow>;
const linkPage = shape({
  rows: listOf(shape({ record: whole(), title: text(), url: text(), found: found() })),
  next: orNull(text()),
  /** Which links the page shows. */
  result: wordOf<LinkResult>(LINK_RESULTS),
  counts: listOf(shape({ result: wordOf<LinkResult>(LINK_RESULTS), n: whole() })),
  /** Addresses that were never tried. */
  untried: whole(),
});
/** A page of the links that were found in one way, with the counts of all. */
export type LinkPage = ValueOf<typeof linkPage>;

/** Links of records (MARC 21, 856 $u). */
export const linkApi = {
  ofRecord: endpoint({
    method: 'get',
    path: '/records/:id/links',
    summary: 'The links of a record, with what was found when they were tried last',
    permission: 'look',
    answer: shape({ rows: listOf(linkRow) }),
    problems: [404],
  }),
  tryRecord: endpoint({
    method: 'post',
    path: '/records/:id/links/try',
    summary: 'Try the links of a record now',
    permission: 'edit records',
    answer: shape({ rows: listOf(linkRow) }),
    problems: [404, 422],
  }),
  list: endpoint({
    method: 'get',
    path: '/web-links',
    summary: 'Links of all records that were found in one way, a page from `after` on',
    permission: 'look',
    query: object({
      result: mixed<LinkResult>().oneOf([...LINK_RESULTS]),
      after: line(4000),
    }),
    answer: linkPage,
  }),
  tryAll: endpoint({
    method: 'post',
    path: '/web-links/try',
    summary: 'Try the links of all records, as a job',
    permission: 'edit records',
    status: 202,
    answer: jobStateSchema,
    problems: [422],
  }),
};
