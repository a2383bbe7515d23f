import { ACT_AREAS, ACT_NAMES, type ActArea, type ActName } from '@osier/core/acts';
import { mixed, object, type InferType } from 'yup';
import { eitherOf, listOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { line, wholeQuery } from '../inputs';
import { daybookEntrySchema, doneSchema, entryParts, undoReviewSchema } from '../objects/acts';
import { storedSchema } from '../objects/marc';
import { isoDayOrInstant } from '../values';
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

const entriesQuery = object({
  before: wholeQuery(),
  mine: line(1),
  person: wholeQuery(),
  area: mixed<ActArea>().oneOf([...ACT_AREAS], 'There is no such area.'),
  act: mixed<ActName>().oneOf([...ACT_NAMES], 'There is no such act.'),
  /** A day of UTC or an instant from which on. */
  from: isoDayOrInstant(),
  /** The last day of UTC, whole, or an instant before which. */
  to: isoDayOrInstant(),
  /** A record number (r12), heading number (h3) or barcode that the entries touched. */
  object: line(60).trim(),
});
/** Which entries of the daybook. */
export type EntriesQuery = InferType<typeof entriesQuery>;

/** The daybook, and undoing. */
export const daybookApi = {
  list: endpoint({
    method: 'get',
    path: '/daybook',
    summary:
      'Everything that was done, newest first; `mine=1` for one’s own; narrowed by person, area, act, days of UTC or instants, and object',
    permission: 'look',
    query: entriesQuery,
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
    summary: 'What undoing an entry would do',
    permission: 'look',
    body: pageBody,
    answer: undoReviewSchema,
  }),
  undo: endpoint({
    method: 'post',
    path: '/daybook/:id/undo',
    summary: 'Undo an entry whole; a large one is started as a job',
    permission: 'look',
    body: object({ token: reviewed() }),
    answer: eitherOf(doneSchema, shape({ job: whole(), sentence: text() })),
  }),
};
