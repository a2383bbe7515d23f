import { FINDING_KINDS, SCAN_OUTCOMES, SETTLEMENTS, SHELF_ORDERS, SPINE_STATES } from '@osier/core/stocktake';
import { amount, flag, listOf, wordOf, orNull, shape, tally, text, under, whole } from '../answers';
import type { ValueOf } from '../endpoint';
import { scheme } from '../objects/holdings';
import { JUMP_ALARMS } from './stocktake-bodies';

const rowParts = {
  id: whole(),
  version: whole(),
  stocktake: shape({
    name: text(),
    stretch: shape({
      branch: text(),
      also: listOf(text()),
      locations: listOf(text()),
      types: listOf(text()),
      leftOut: listOf(text()),
      scheme: scheme(),
      from: text(),
      to: text(),
    }),
    state: wordOf(['open', 'closing', 'closed']),
    startedOn: text(),
    closedOn: text(),
    seenSince: text(),
    /** By location; '' for those that are not named. */
    orders: under(wordOf(SHELF_ORDERS)),
    jump: shape({ when: wordOf(JUMP_ALARMS), by: amount() }),
    scanners: listOf(whole()),
  }),
  expected: whole(),
  /** Expected copies that were scanned. */
  found: whole(),
  scans: whole(),
  /** How many things shelf and records do not agree on; null while it is open. */
  findings: orNull(whole()),
  /** Its stretch, in words. */
  placeName: text(),
};
/** A row of the list of stocktakes. */
export const stocktakeRowSchema = shape(rowParts);
/** A stocktake with how it stands. */
export type StocktakeRow = ValueOf<typeof stocktakeRowSchema>;

/** What is answered to scans. */
export const scanAnswerSchema = shape({
  /** How many were not sent before. */
  added: whole(),
  /** Of the last twenty. */
  verdicts: listOf(
    shape({
      code: text(),
      outcome: wordOf(SCAN_OUTCOMES),
      title: text(),
      callNumber: text(),
      message: text(),
      jumped: orNull(whole()),
    }),
  ),
  /** The expected copy that stands next and was not scanned; null when none does. */
  next: orNull(shape({ barcode: text(), callNumber: text(), title: text() })),
  expected: whole(),
  found: whole(),
});
/** What is said of scans at once. */
export type ScanAnswer = ValueOf<typeof scanAnswerSchema>;

const run = shape({
  id: whole(),
  /** Name of the file; '' for a walk. */
  name: text(),
  location: text(),
  /** Who scanned; '' for a file. */
  person: text(),
  scans: whole(),
  /** ISO dates and times. */
  began: text(),
  ended: text(),
});
/** A walk or a file of a stocktake. */
export type StocktakeRun = ValueOf<typeof run>;

const settledNote = shape({ how: wordOf(SETTLEMENTS), on: text(), by: text() });
const stockFindingRow = shape({
  kind: wordOf(FINDING_KINDS),
  code: text(),
  copy: orNull(whole()),
  record: orNull(whole()),
  title: text(),
  callNumber: text(),
  location: text(),
  message: text(),
  acts: listOf(wordOf(SETTLEMENTS)),
  others: listOf(text()),
  count: whole(),
  settled: orNull(settledNote),
});
/** A finding with what was done about it. */
export type StockFindingRow = ValueOf<typeof stockFindingRow>;
/** A page of findings or copies. */
export const findingPageSchema = shape({ rows: listOf(stockFindingRow), next: orNull(text()) });
/** A page of findings. */
export type FindingPage = ValueOf<typeof findingPageSchema>;

/** The report of a stocktake. */
export const stocktakeReportSchema = shape({
  outcomes: tally(),
  /** Copies of each class (the first digits of its call number), by outcome. */
  classes: listOf(shape({ name: text(), outcomes: tally() })),
  locations: listOf(shape({ name: text(), outcomes: tally() })),
  people: listOf(shape({ name: text(), scans: whole() })),
  /** Missing and skipped of a hundred expected; of the last closed stocktake of the same branch, or null. */
  lossRate: amount(),
  lastTime: orNull(shape({ id: whole(), name: text(), closedOn: text(), lossRate: amount() })),
});
/** What a stocktake found, counted. */
export type StocktakeReport = ValueOf<typeof stocktakeReportSchema>;

/** One stocktake. */
export const stocktakeDetailSchema = shape({
  ...rowParts,
  /** What follows is being brought up to date. */
  comparing: flag(),
  /** Copies of the stretch by what became of them. */
  outcomes: tally(),
  /** Findings by kind; how many of them are settled. */
  kinds: listOf(shape({ kind: wordOf(FINDING_KINDS), count: whole(), settled: whole() })),
  runs: listOf(run),
  /** Of how many copies the loans desk has said how they stand; null without one. */
  loans: orNull(shape({ asked: whole(), of: whole() })),
  /** Copies of which the loans desk is still to be told, and the barcodes of those that it refused. */
  toTell: shape({ waiting: whole(), refused: listOf(text()) }),
});
/** A stocktake with how shelf and records compare. */
export type StocktakeDetail = ValueOf<typeof stocktakeDetailSchema>;

/** A spine of the shelf strip. */
export const spineSchema = shape({
  state: wordOf(SPINE_STATES),
  code: text(),
  callNumber: text(),
  title: text(),
  copy: orNull(whole()),
  record: orNull(whole()),
  after: text().nullable().optional(),
  jumped: whole().optional(),
});
/** A piece of the shelf strip. */
export const stripPartSchema = shape({ run: whole(), part: whole(), states: tally() });
/** A piece of the picture of a walk: how many spines of each state. */
export type StripPart = ValueOf<typeof stripPartSchema>;

/** The review of a stretch. */
export const stretchReviewSchema = shape({
  copies: whole(),
  expected: whole(),
  /** Copies that are accounted for without a scan. */
  seenSince: whole(),
  statuses: tally(),
  /** There is a loans desk, and the stretch is not too long to ask it before the start. */
  canAskLoans: flag(),
  /** Of the expected copies, as the loans desk says; null when it was not asked. */
  loans: orNull(shape({ onLoan: whole(), notKnown: whole() })),
  overlaps: listOf(shape({ id: whole(), name: text(), copies: whole() })),
});
/** What a stretch holds, before a stocktake of it is started. */
export type StretchReview = ValueOf<typeof stretchReviewSchema>;

/** A page of the copies of a stretch. */
export const shelfPageSchema = shape({
  rows: listOf(
    shape({
      barcode: text(),
      shelfKey: text(),
      callNumber: text(),
      title: text(),
      location: text(),
      status: text(),
    }),
  ),
  next: orNull(text()),
});
/** Copies of a stretch as a device keeps them for a walk without network. */
export type ShelfPage = ValueOf<typeof shelfPageSchema>;
