import { BOOK_STATES } from '@osier/core/neighbours';
import { array, object } from 'yup';
import { listOf, orNull, shape, tallyBy, text, whole, wordOf } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { id, line } from '../inputs';
import { jobStateSchema } from '../objects/acts';
import { marcBody } from '../objects/sent-record';

/** Books that are looked for together: their numbers as they were scanned. */
export const bookListBody = object({
  name: line(80).trim().required('Give the list a name.'),
  codes: array(line(60).required())
    .min(1, 'Scan the books, or load a file of ISBNs.')
    .max(500, 'At most 500 books are looked for at once. Split the list.')
    .required(),
});
const bookListParts = {
  id: whole(),
  name: text(),
  at: text(),
  by: text(),
  /** How many books stand how. */
  counts: tallyBy(BOOK_STATES),
  /** Found, and not in a delivery yet. */
  ready: whole(),
  /** The job that looks for them now. */
  job: orNull(whole()),
};
const bookListRow = shape(bookListParts);
/** A list of books that are looked for. */
export type BookListRow = ValueOf<typeof bookListRow>;
const bookList = shape({
  ...bookListParts,
  rows: listOf(
    shape({
      seq: whole(),
      code: text(),
      isbn: text(),
      state: wordOf(BOOK_STATES),
      reason: text(),
      title: text(),
      /** The neighbour that has it, by name; '' for none. */
      from: text(),
      /** The record of the catalogue that it is; 0 for none. */
      record: whole(),
      delivery: whole(),
    }),
  ),
});
/** The same with its books. */
export type BookList = ValueOf<typeof bookList>;

const take = 'take in deliveries' as const;
/** Many books at once: lists of ISBNs that are looked for among the neighbours. */
export const bookListApi = {
  list: endpoint({
    method: 'get',
    path: '/book-lists',
    summary: 'Lists of books that are looked for together, newest first',
    permission: 'look',
    answer: listOf(bookListRow),
  }),
  start: endpoint({
    method: 'post',
    path: '/book-lists',
    summary: 'Look for many books at once',
    permission: take,
    body: bookListBody,
    status: 202,
    answer: shape({ list: whole(), job: whole() }),
  }),
  read: endpoint({
    method: 'get',
    path: '/book-lists/:id',
    summary: 'A list of books with what was found of each',
    permission: 'look',
    answer: bookList,
  }),
  further: endpoint({
    method: 'post',
    path: '/book-lists/:id/further',
    summary: 'Look for the books that were not found at neighbours that were not asked for them, or failed',
    permission: take,
    status: 202,
    answer: jobStateSchema,
  }),
  choose: endpoint({
    method: 'put',
    path: '/book-lists/:id/books/:seq',
    summary: 'Choose the record of a neighbour for a book of a list, by its place in it',
    permission: take,
    body: object({ neighbour: id().required(), marc: marcBody.required() }),
    answer: shape({ sentence: text() }),
    problems: [404],
  }),
  deliver: endpoint({
    method: 'post',
    path: '/book-lists/:id/deliver',
    summary: 'Make a delivery of the records that were found',
    permission: take,
    status: 202,
    answer: shape({ delivery: whole(), job: whole() }),
  }),
  remove: endpoint({
    method: 'post',
    path: '/book-lists/:id/remove',
    summary: 'Delete a list; what it found and was delivered stays',
    permission: take,
    answer: shape({ sentence: text() }),
  }),
};
