import { COPY_STATUSES, type CopyStatus } from '@osier/core/holdings';
import { OUTCOMES, type Outcome } from '@osier/core/matching';
import type { Scheme } from '@osier/core/callnumbers';
import { array, mixed, object, type InferType } from 'yup';
import { flag, listOf, oneOf, orNull, shape, tally, tallyBy, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { id, line, price, version, wholeIn } from '../inputs';
import { done, jobState, review } from '../objects/acts';
import { proposedCopy } from '../objects/holdings';
import { finding, likeness, marc, match, repair, severity } from '../objects/marc';
import { settings, settingsShape } from '../objects/settings';
import { number } from '../values';
import { marcBody } from './catalogue';
import { leaveOut, page, reviewed } from './reviews';

const outcome = () =>
  mixed<Outcome>()
    .oneOf([...OUTCOMES], 'Choose what is done.')
    .required('Choose what is done.');
/** What is done with these records; with which of ours, where that was chosen. */
export const decisionBody = object({
  incoming: array(id().required()).min(1, 'Choose records.').max(20000).required(),
  decision: outcome(),
  target: id().nullable().optional(),
});
/** A copy that is to be made; that its codes are on their lists is told at the copy, not refused. */
const sentCopy = object({
  branch: line().defined(),
  location: line().defined(),
  scheme: mixed<Scheme>().oneOf(['lc', 'dewey', 'nlm', 'own']).required(),
  prefix: line().defined(),
  class: line().defined(),
  item: line().defined(),
  suffix: line().defined(),
  barcode: line().defined(),
  part: line(60).trim().optional(),
  number: number().integer().min(1, 'A copy number is 1 or more.').required(),
  type: line().defined(),
  price: price().defined(),
  fund: line().defined(),
  supplier: line().defined(),
  note: line().defined(),
  status: mixed<CopyStatus>()
    .oneOf([...COPY_STATUSES], 'Choose a status.')
    .required(),
  remarks: array(line(500).required()).max(20).default([]),
});
/** A waiting record as a person corrects it: its fields, its copies, or a note. */
export const incomingBody = object({
  version: version(),
  marc: marcBody.optional().default(undefined),
  copies: array(sentCopy.required()).max(200).optional(),
  note: line(500).optional(),
});
export type IncomingBody = InferType<typeof incomingBody>;
/** Other settings for one delivery. */
export const settingsBody = object({
  version: version(),
  /** The sheet that the settings are taken from, or null for none. */
  sheet: id().nullable().defined(),
  settings: object(settingsShape).required(),
});
export type SettingsBody = InferType<typeof settingsBody>;
/** Records of a delivery to take back; all that were accepted when none is named. */
export const takeBackBody = object({
  incoming: array(id().required()).max(20000).default([]),
  leaveOut: leaveOut(),
  token: reviewed(),
});
/** A recipe over the waiting records of a delivery. */
export const cleanBody = object({ recipe: line().required(), leaveOut: leaveOut(), token: reviewed() });
/** Safe fixes of these checks; all checks when none is named. */
export const fixBody = object({
  rules: array(line().required()).max(200).default([]),
  leaveOut: leaveOut(),
  token: reviewed(),
});
/** Accepting, but for some records. */
export const acceptBody = object({ leaveOut: leaveOut(), token: reviewed() });
/** A page of the review of accepting. */
export const acceptReviewBody = acceptBody.shape(page);
/** A page of the review of safe fixes. */
export const fixReviewBody = fixBody.shape(page);
/** A page of the review of a recipe over a delivery. */
export const cleanReviewBody = cleanBody.shape(page);
/** A page of the review of undoing accepted records. */
export const takeBackReviewBody = takeBackBody.shape(page);

const deliveryRow = shape({
  id: whole(),
  name: text(),
  format: text(),
  bytes: whole(),
  arrived: text(),
  state: oneOf(['reading', 'ready', 'failed', 'cancelled']),
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
export type DeliveryRow = ValueOf<typeof deliveryRow>;

const incomingParts = {
  id: whole(),
  version: whole(),
  seq: whole(),
  title: text(),
  author: text(),
  isbn: text(),
  year: text(),
  decision: oneOf(OUTCOMES),
  chosen: flag(),
  copies: whole(),
  copyProblems: whole(),
  note: text(),
  target: orNull(whole()),
  state: oneOf(['waiting', 'accepted', 'skipped']),
  record: orNull(whole()),
  recipe: orNull(text()),
  matches: listOf(match),
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
export type KeptRepair = ValueOf<typeof repair>;
const incomingDetail = shape({
  ...incomingParts,
  marc,
  original: marc,
  findings: listOf(finding),
  repairList: listOf(repair),
  proposedCopies: listOf(proposedCopy),
  /** The records that match, and the one that was paired by hand. */
  held: listOf(shape({ id: whole(), marc, likeness, copies: whole() })),
  /** What the catalogue's record becomes by the decision; null when nothing is replaced or merged. */
  becomes: orNull(marc),
});
/** A record of a delivery whole: as it came, as it is now, what it matches. */
export type IncomingDetail = ValueOf<typeof incomingDetail>;
const incomingPage = shape({
  rows: listOf(incomingRow),
  /** The place behind which the next page begins. */
  next: orNull(whole()),
  total: whole(),
  facets: tally(),
});
/** A page of a delivery’s records. */
export type IncomingPage = ValueOf<typeof incomingPage>;

const summary = shape({
  id: whole(),
  version: whole(),
  sheet: orNull(shape({ id: whole(), name: text(), why: text() })),
  settings,
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
export type DeliverySummary = ValueOf<typeof summary>;

const report = shape({
  name: text(),
  arrived: text(),
  rows: listOf(
    shape({
      seq: whole(),
      title: text(),
      author: text(),
      isbn: text(),
      year: text(),
      state: oneOf(['waiting', 'accepted', 'skipped']),
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
export type DeliveryReport = ValueOf<typeof report>;

const findingKind = shape({
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
export type FindingKind = ValueOf<typeof findingKind>;

const take = 'take in deliveries' as const;
const of = '/deliveries/:id' as const;
export const deliveries = {
  list: endpoint({
    method: 'get',
    path: '/deliveries',
    summary: 'All deliveries, newest first',
    permission: 'look',
    answer: listOf(deliveryRow),
  }),
  takeIn: endpoint({
    method: 'post',
    path: '/deliveries',
    summary: 'Take in a file; the body is the file, `name` its name',
    permission: take,
    query: object({ name: line(200) }),
    body: 'file',
    status: 202,
    answer: shape({ delivery: whole(), job: whole() }),
    problems: [409],
  }),
  read: endpoint({
    method: 'get',
    path: of,
    summary: 'One delivery with its counts',
    permission: 'look',
    answer: deliveryRow,
  }),
  incoming: endpoint({
    method: 'get',
    path: `${of}/incoming`,
    summary: 'Records of a delivery, by facet, a page at a time',
    permission: 'look',
    query: object({ facet: line(80), after: wholeIn() }),
    answer: incomingPage,
  }),
  readIncoming: endpoint({
    method: 'get',
    path: `${of}/incoming/:incoming`,
    summary: 'One incoming record whole',
    permission: 'look',
    answer: incomingDetail,
  }),
  decide: endpoint({
    method: 'post',
    path: `${of}/decisions`,
    summary: 'Decide what is done with some records',
    permission: take,
    body: decisionBody,
    answer: done,
  }),
  decideAll: endpoint({
    method: 'post',
    path: `${of}/decisions/all`,
    summary: 'Decide what is done with all records that wait under a facet',
    permission: take,
    body: object({ facet: line(80).required(), decision: outcome() }),
    status: 202,
    answer: jobState,
  }),
  saveIncoming: endpoint({
    method: 'put',
    path: `${of}/incoming/:incoming`,
    summary: 'Save a waiting record after correcting its fields, its copies or its note',
    permission: take,
    body: incomingBody,
    answer: done,
  }),
  summary: endpoint({
    method: 'get',
    path: `${of}/summary`,
    summary: 'Counts by outcome, copies, findings before and after, settings',
    permission: 'look',
    answer: summary,
  }),
  saveSettings: endpoint({
    method: 'put',
    path: `${of}/settings`,
    summary: 'Give one delivery other settings and match it anew',
    permission: take,
    body: settingsBody,
    status: 202,
    answer: jobState,
  }),
  reviewTakeBack: endpoint({
    method: 'post',
    path: `${of}/take-back/review`,
    summary: 'What taking back accepted records would do',
    permission: 'undo',
    body: takeBackReviewBody,
    answer: review,
  }),
  takeBack: endpoint({
    method: 'post',
    path: `${of}/take-back`,
    summary: 'Take accepted records back, with their copies; those that were worked on since stay',
    permission: 'undo',
    body: takeBackBody,
    status: 202,
    answer: jobState,
  }),
  report: endpoint({
    method: 'get',
    path: `${of}/report`,
    summary: 'What became of each record, as CSV',
    permission: 'look',
    answer: { media: ['text/csv'] },
  }),
  reportRows: endpoint({
    method: 'get',
    path: `${of}/report/rows`,
    summary: 'What became of each record, as JSON',
    permission: 'look',
    answer: report,
  }),
  accepted: endpoint({
    method: 'get',
    path: `${of}/accepted`,
    summary: 'The records it became in the catalogue, as ISO 2709',
    permission: 'look',
    answer: { media: ['application/marc'] },
  }),
  findings: endpoint({
    method: 'get',
    path: `${of}/findings`,
    summary: 'What the checks found in the waiting records, by kind',
    permission: 'look',
    answer: listOf(findingKind),
  }),
  reviewFix: endpoint({
    method: 'post',
    path: `${of}/fix/review`,
    summary: 'What the safe fixes would change',
    permission: take,
    body: fixReviewBody,
    answer: review,
  }),
  fix: endpoint({
    method: 'post',
    path: `${of}/fix`,
    summary: 'Apply the safe fixes of some checks, or of all, to the waiting records',
    permission: take,
    body: fixBody,
    status: 202,
    answer: jobState,
  }),
  reviewClean: endpoint({
    method: 'post',
    path: `${of}/clean/review`,
    summary: 'What a recipe would change',
    permission: take,
    body: cleanReviewBody,
    answer: review,
  }),
  clean: endpoint({
    method: 'post',
    path: `${of}/clean`,
    summary: 'Run a recipe over the waiting records',
    permission: take,
    body: cleanBody,
    status: 202,
    answer: jobState,
  }),
  reviewAccept: endpoint({
    method: 'post',
    path: `${of}/accept/review`,
    summary: 'What accepting would do',
    permission: take,
    body: acceptReviewBody,
    answer: review,
  }),
  accept: endpoint({
    method: 'post',
    path: `${of}/accept`,
    summary: 'Accept the waiting records as decided',
    permission: take,
    body: acceptBody,
    status: 202,
    answer: jobState,
  }),
};
