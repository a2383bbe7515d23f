import { object } from 'yup';
import { eitherOf, listOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { line, wholeQuery } from '../inputs';
import { daybookEntrySchema, doneSchema, entryParts, undoReviewSchema } from '../objects/acts';
import { storedSchema } from '../objects/marc';
import { pageBody, reviewed } from './reviews';

const daybookPage = shape({ rows: listOf(daybookEntrySchema), next: orNull(whole()) });
/** A page of the daybook. */
export type DaybookPage = ValueOf<typeof daybookPage>;
const daybookDetail = shape({
  ...entryParts,
  changes: listOf(
    shape({ kind: text(), id: whole(), label: text(), before: storedSchema, after: storedSchema }),
  ),
  more: whole(),
});
/** An entry with its first changes. */
export type DaybookDetail = ValueOf<typeof daybookDetail>;

/** The daybook, and undoing. */
export const daybookApi = {
  list: endpoint({
    method: 'get',
    path: '/daybook',
    summary: 'Everything that was done, newest first; `mine=1` for one’s own',
    permission: 'look',
    query: object({ before: wholeQuery(), mine: line(1) }),
    answer: daybookPage,
  }),
  read: endpoint({
    method: 'get',
    path: '/daybook/:id',
    summary: 'One entry with its changes',
    permission: 'look',
    answer: daybookDetail,
  }),
  reviewUndo: endpoint({
    method: 'post',
    path: '/daybook/:id/undo/review',
    summary: 'What taking an entry back would do',
    permission: 'look',
    body: pageBody,
    answer: undoReviewSchema,
  }),
  undo: endpoint({
    method: 'post',
    path: '/daybook/:id/undo',
    summary: 'Take an entry back whole; a large one is begun as a job',
    permission: 'look',
    body: object({ token: reviewed() }),
    answer: eitherOf(doneSchema, shape({ job: whole(), sentence: text() })),
  }),
};
