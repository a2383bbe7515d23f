import { SAVED_OF, type SavedOf } from '@osier/core/find';
import { boolean, mixed, object, type InferType } from 'yup';
import { flag, listOf, objectOf, orNull, shape, text, whole, wordOf } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { line, version } from '../inputs';
import { doneSchema, madeSchema } from '../objects/acts';
import { versionBody } from './setup';

/** The parts of a search that can be kept, as they stand in the address of its list. */
type Parts = Record<string, string>;
const MOST_PARTS = 30;
const isParts = (value: unknown): boolean =>
  typeof value === 'object' &&
  value !== null &&
  Object.keys(value).length <= MOST_PARTS &&
  Object.entries(value).every(
    ([name, part]) => /^[a-zA-Z]{1,20}$/.test(name) && typeof part === 'string' && part.length <= 500,
  );

/** A search that is kept under a name. */
export const savedSearchBody = object({
  name: line(80).trim().required('Give the search a name.'),
  of: mixed<SavedOf>()
    .oneOf([...SAVED_OF], 'A search is for records, holdings, copies or headings.')
    .required('A search is for records, holdings, copies or headings.'),
  search: mixed<Parts>()
    .test('parts', 'This is not a search.', isParts)
    .test(
      'some',
      'Type what is searched for.',
      (value) => !isParts(value) || Object.keys(value ?? {}).length > 0,
    )
    .required('This is not a search.'),
  isShared: boolean().default(false),
  onToday: boolean().default(false),
});
export type SavedSearchBody = InferType<typeof savedSearchBody>;
/** The same, changed. */
export const savedSearchChangeBody = savedSearchBody.shape({ version: version() });

const savedSearchRow = shape({
  id: whole(),
  version: whole(),
  name: text(),
  of: wordOf(SAVED_OF),
  search: objectOf<Parts>('The parts of the search by their names.'),
  /** Who keeps it. */
  by: text(),
  isMine: flag(),
  isShared: flag(),
  onToday: flag(),
});
/** A search that is kept. */
export type SavedSearchRow = ValueOf<typeof savedSearchRow>;

const countedSearch = shape({
  id: whole(),
  name: text(),
  of: wordOf(SAVED_OF),
  search: objectOf<Parts>('The parts of the search by their names.'),
  /** How much it finds; null where it cannot be searched now, and `problem` says why. */
  n: orNull(whole()),
  isMore: flag(),
  problem: text(),
});
/** A search that Today shows, with how much it finds. */
export type CountedSearch = ValueOf<typeof countedSearch>;

const permission = 'keep searches' as const;
/** Searches that are kept: one's own, and those that others share. */
export const searchApi = {
  list: endpoint({
    method: 'get',
    path: '/searches',
    summary: 'The saved searches: my own and those that are shared',
    permission: 'look',
    answer: listOf(savedSearchRow),
  }),
  counted: endpoint({
    method: 'get',
    path: '/searches/counted',
    summary: 'The saved searches that Today shows, with how much each finds',
    permission: 'look',
    answer: listOf(countedSearch),
  }),
  keep: endpoint({
    method: 'post',
    path: '/searches',
    summary: 'Save a search under a name',
    permission,
    body: savedSearchBody,
    status: 201,
    answer: madeSchema,
  }),
  change: endpoint({
    method: 'put',
    path: '/searches/:id',
    summary: 'Change a saved search of one’s own; the head may change any that is shared',
    permission,
    body: savedSearchChangeBody,
    answer: doneSchema,
    problems: [404],
  }),
  remove: endpoint({
    method: 'post',
    path: '/searches/:id/remove',
    summary: 'Delete a saved search of one’s own; the head may delete any that is shared',
    permission,
    body: versionBody,
    answer: doneSchema,
    problems: [404],
  }),
};
