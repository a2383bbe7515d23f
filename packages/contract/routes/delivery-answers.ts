import { OUTCOMES } from '@osier/core/matching';
import { flag, listOf, wordOf, orNull, shape, tally, tallyBy, text, whole } from '../answers';
import type { ValueOf } from '../endpoint';
import { proposedCopySchema } from '../objects/holdings';
import {
  findingSchema,
  likenessSchema,
  marcSchema,
  matchSchema,
  repairSchema,
  severity,
} from '../objects/marc';
import { settingsSchema } from '../objects/settings';

/** A delivery with its counts. */
export const deliveryRowSchema = shape({
  id: whole(),
  name: text(),
  format: text(),
  bytes: whole(),
  arrived: text(),
  state: wordOf(['reading', 'ready', 'failed', 'cancelled']),
  problem: orNull(text()),
  records: whole(),
  waiting: whole(),
  accepted: whole(),
  skipped: whole(),
  unreadable: whole(),
  repaired: whole(),
  job: orNull(whole()),
  sameAs: orNull(shape({ id: whole(), name: text(), arrived: text() })),
  supplier: orNull(text()),
});
/** A delivery with how far it is read and how its records stand. */
export type DeliveryRow = ValueOf<typeof deliveryRowSchema>;

const incomingParts = {
  id: whole(),
  version: whole(),
  seq: whole(),
  title: text(),
  author: text(),
  isbn: text(),
  year: text(),
  decision: wordOf(OUTCOMES),
  chosen: flag(),
  copies: whole(),
  copyProblems: whole(),
  note: text(),
  target: orNull(whole()),
  state: wordOf(['waiting', 'accepted', 'skipped']),
  record: orNull(whole()),
  recipe: orNull(text()),
  matches: listOf(matchSchema),
  repeats: orNull(whole()),
  errors: whole(),
  warnings: whole(),
  advice: whole(),
  repairs: whole(),
};
const incomingRow = shape(incomingParts);
/** A record of a delivery as the list shows it. */
export type IncomingRow = ValueOf<typeof incomingRow>;
/** A repair as it is kept; bytes that belong to no field as base64. */
export type KeptRepair = ValueOf<typeof repairSchema>;
/** An incoming record whole. */
export const incomingDetailSchema = shape({
  ...incomingParts,
  marc: marcSchema,
  original: marcSchema,
  findings: listOf(findingSchema),
  repairList: listOf(repairSchema),
  proposedCopies: listOf(proposedCopySchema),
  /** The records that match, and the one that was paired by hand. */
  held: listOf(shape({ id: whole(), marc: marcSchema, likeness: likenessSchema, copies: whole() })),
  /** What the catalogue's record becomes by the decision; null when nothing is replaced or merged. */
  becomes: orNull(marcSchema),
});
/** A record of a delivery whole: as it came, as it is now, what it matches. */
export type IncomingDetail = ValueOf<typeof incomingDetailSchema>;
/** A page of incoming records. */
export const incomingPageSchema = shape({
  rows: listOf(incomingRow),
  /** The place behind which the next page begins. */
  next: orNull(whole()),
  total: whole(),
  facets: tally(),
  /** How many under the facet can be accepted. */
  ready: whole(),
});
/** A page of a delivery’s records. */
export type IncomingPage = ValueOf<typeof incomingPageSchema>;

/** The counts of a delivery. */
export const summarySchema = shape({
  id: whole(),
  version: whole(),
  sheet: orNull(shape({ id: whole(), name: text(), why: text() })),
  settings: settingsSchema,
  read: whole(),
  unreadable: whole(),
  /** Records that wait, by what is to be done with them. */
  waiting: tallyBy(OUTCOMES),
  /** Records that are done, by what was done. */
  done: tallyBy(['added', 'replaced', 'merged', 'copiesOnly', 'skipped']),
  copies: tallyBy(['waiting', 'problems', 'made']),
  /** Findings of the checks as the file came, and now, by kind. */
  findings: listOf(
    shape({ rule: text(), title: text(), severity: severity(), before: whole(), after: whole() }),
  ),
  /** Whether anything can be taken back. */
  accepted: whole(),
});
/** How a delivery stands, for the counts that are checked at a glance, the chart and the printed report. */
export type DeliverySummary = ValueOf<typeof summarySchema>;

/** What became of each record. */
export const reportSchema = shape({
  name: text(),
  arrived: text(),
  rows: listOf(
    shape({
      seq: whole(),
      title: text(),
      author: text(),
      isbn: text(),
      year: text(),
      state: wordOf(['waiting', 'accepted', 'skipped']),
      decision: text(),
      record: orNull(whole()),
      barcodes: listOf(text()),
      repairs: whole(),
      errors: whole(),
      warnings: whole(),
      advice: whole(),
      note: text(),
      outcome: text(),
    }),
  ),
});
/** What became of each record of a delivery, for printing. */
export type DeliveryReport = ValueOf<typeof reportSchema>;

/** Findings of one check. */
export const findingKindSchema = shape({
  rule: text(),
  title: text(),
  severity: severity(),
  findings: whole(),
  records: whole(),
  /** How many have a fix that can be applied unseen, and one to look at first. */
  safe: whole(),
  look: whole(),
});
/** Findings of one check in a delivery. */
export type FindingKind = ValueOf<typeof findingKindSchema>;
