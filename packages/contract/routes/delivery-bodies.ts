import { COPY_STATUSES, LOAN_RULES, type CopyStatus, type LoanRule } from '@osier/core/holdings';
import { OUTCOMES, type Outcome } from '@osier/core/matching';
import { SCHEMES, type Scheme } from '@osier/core/callnumbers';
import { array, boolean, mixed, object, type InferType } from 'yup';
import { currency, id, line, price, version } from '../inputs';
import { settingsShape } from '../objects/settings';
import { isoDay, number } from '../values';
import { marcBody } from '../objects/sent-record';
import { leaveOut, page, reviewed } from './reviews';

/** What is to be done with a record. */
export const outcome = () =>
  mixed<Outcome>()
    .oneOf([...OUTCOMES], 'Choose an outcome.')
    .required('Choose an outcome.');
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
  scheme: mixed<Scheme>()
    .oneOf([...SCHEMES])
    .required(),
  prefix: line().defined(),
  class: line().defined(),
  item: line().defined(),
  year: line(20).optional(),
  suffix: line().defined(),
  barcode: line().defined(),
  /** Keep a barcode that is not in the library's form, spoiled, or was on a withdrawn copy. */
  keepBarcode: boolean().optional(),
  part: line(60).trim().optional(),
  number: number().integer().min(1, 'A copy number is 1 or more.').required(),
  type: line().defined(),
  price: price().defined(),
  currency: currency().optional(),
  fund: line().defined(),
  supplier: line().defined(),
  note: line().defined(),
  staffNote: line().optional(),
  condition: line().optional(),
  acquired: isoDay().optional(),
  loanRule: mixed<LoanRule>()
    .oneOf([...LOAN_RULES], 'Choose a loan rule.')
    .optional(),
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
/** Accepting all that wait, or those under a facet, but for some records. */
export const acceptBody = object({
  facet: line(80).default(''),
  leaveOut: leaveOut(),
  token: reviewed(),
});
/** A page of the review of accepting. */
export const acceptReviewBody = acceptBody.shape(page);
/** A page of the review of safe fixes. */
export const fixReviewBody = fixBody.shape(page);
/** A page of the review of a recipe over a delivery. */
export const cleanReviewBody = cleanBody.shape(page);
/** A page of the review of undoing accepted records. */
export const takeBackReviewBody = takeBackBody.shape(page);
