import { anyObject, amount, eitherOf, flag, listOf, wordOf, orNull, shape, text, whole } from '../answers';
import type { ValueOf } from '../endpoint';
import { marcSchema } from './marc';

/** What an act tells: its entry of the daybook and its sentence. */
export const doneSchema = shape({ entry: whole(), sentence: text() });
export type Done = ValueOf<typeof doneSchema>;
/** The same, with the number of what was made. */
export const madeSchema = shape({ id: whole(), entry: whole(), sentence: text() });

/** How far a job is. */
export const jobStateSchema = shape({
  id: whole(),
  kind: text(),
  title: text(),
  state: wordOf(['waiting', 'running', 'done', 'failed', 'cancelled']),
  done: whole(),
  total: orNull(whole()),
  /** Records a second over the whole run so far. */
  rate: orNull(amount()),
  secondsLeft: orNull(amount()),
  message: orNull(text()),
  work: anyObject('What the job works on.'),
  /** Who started it; 0 for Osier itself. */
  person: whole(),
  entry: orNull(whole()),
});
export type JobState = ValueOf<typeof jobStateSchema>;

const reviewSide = eitherOf(shape({ marc: marcSchema }), shape({ text: text() }));
export type ReviewSide = ValueOf<typeof reviewSide>;
/** One object of a review. */
export const reviewRowSchema = shape({
  id: whole(),
  label: text(),
  detail: text(),
  /** Shown before the rest. */
  exception: orNull(text()),
  before: orNull(reviewSide),
  after: orNull(reviewSide),
  canLeaveOut: flag(),
});
export type ReviewRow = ValueOf<typeof reviewRowSchema>;
/** What stands in the way of an act, and the entry that put it there. */
const conflict = shape({ kind: text(), id: whole(), message: text(), entry: orNull(whole()) });
const reviewParts = {
  /** One sentence of what will happen, with counts. */
  sentence: text(),
  /** What the button says: its verb, and how many of what. */
  verb: text(),
  noun: shape({ one: text(), many: text() }),
  count: whole(),
  /** Consequences worth a second look. */
  consequences: listOf(text()),
  rows: listOf(reviewRowSchema),
  /** Rows beyond those shown in full. */
  more: whole(),
  /** What the review was made from; sent back with the act, so that nothing else is done than what was shown. */
  token: text(),
};
/** What every batch act shows before it is done. */
export const reviewSchema = shape(reviewParts);
export type Review = ValueOf<typeof reviewSchema>;
/** A review of undoing, with what stands in the way. */
export const undoReviewSchema = shape({
  ...reviewParts,
  conflicts: listOf(conflict),
});
export type UndoReview = ValueOf<typeof undoReviewSchema>;

/** An entry of the daybook. `at` is an ISO date and time. */
export const entryParts = {
  id: whole(),
  at: text(),
  person: text(),
  act: text(),
  sentence: text(),
  undoneBy: orNull(whole()),
  undoes: orNull(whole()),
  undoable: flag(),
  objects: whole(),
};
/** An entry of the daybook. */
export const daybookEntrySchema = shape(entryParts);
export type DaybookEntry = ValueOf<typeof daybookEntrySchema>;

/** RFC 9457 problem details with the fields it concerns. */
export const problemSchema = shape({
  type: text(),
  title: text(),
  status: whole(),
  detail: text(),
  /** `overrulable`: who sent it may have it all the same, on purpose. */
  fields: listOf(shape({ field: text(), message: text(), overrulable: flag().optional() })).optional(),
  /** For 409 on a save: what stands in the catalogue now. */
  current: anyObject('What stands in the catalogue now.').nullable().optional(),
  conflicts: listOf(conflict).optional(),
});
export type Problem = ValueOf<typeof problemSchema>;
