import { SCHEMES, type Scheme } from '@osier/core/callnumbers';
import { COPY_STATUSES, LOAN_RULES, type CopyStatus, type LoanRule } from '@osier/core/holdings';
import { array, boolean, mixed, object, type InferType } from 'yup';
import { orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { code, currency, id, line, price, version } from '../inputs';
import { doneSchema, madeSchema, reviewSchema } from '../objects/acts';
import { isoDay, number, string } from '../values';
import { reviewed } from './reviews';

const placeShape = {
  branch: code().defined(),
  location: code().defined(),
  scheme: mixed<Scheme>()
    .oneOf([...SCHEMES])
    .required(),
  prefix: line(40).default(''),
  /** Empty where a prefix and an author mark stand for it. */
  class: line(60).trim().default(''),
  item: line(60).trim().default(''),
  year: line(20).trim().default(''),
  suffix: line(40).trim().default(''),
};
const holdingShape = { ...placeShape, note: line().default(''), staffNote: line().default('') };
/** A new holding. */
export const holdingBody = object({ record: id().required(), ...holdingShape });
export type HoldingBody = InferType<typeof holdingBody>;
/** A holding as it becomes. */
export const holdingChangeBody = object({ version: version(), ...holdingShape });
export type HoldingChangeBody = InferType<typeof holdingChangeBody>;
const loanRule = () => mixed<LoanRule>().oneOf([...LOAN_RULES], 'Choose a loan rule.');
const localBody = () =>
  array(object({ field: id().required(), value: line(500).default('') }).required()).max(200);
const status = () => mixed<CopyStatus>().oneOf([...COPY_STATUSES], 'Choose a status.');
/** A new copy of a holding. */
export const copyBody = object({
  holding: id().required(),
  barcode: line(40)
    .test('not blank', 'Scan or type a barcode.', (v) => v === undefined || /\S/.test(v))
    .required('Scan or type a barcode.'),
  /** The part or volume, as written on it; '' for a title that is one whole. */
  part: line(60).trim().default(''),
  type: code().defined(),
  price: price().default(null),
  currency: currency().default(''),
  fund: line(60).default(''),
  supplier: line(60).default(''),
  acquired: isoDay().default(''),
  condition: line().default(''),
  note: line().default(''),
  staffNote: line().default(''),
  loanRule: loanRule().default('lends'),
  status: status().default('available'),
  /** What it has in the local fields of the library, by their numbers. */
  local: localBody().default([]),
  /** Keep a barcode that is not in the house's form, on purpose. */
  keepBarcode: boolean().default(false),
});
export type CopyBody = InferType<typeof copyBody>;
const copyNumber = () =>
  number().integer().min(1, 'A copy number is 1 or more.').max(9999, 'A copy number is 9999 or less.');
/** What of a copy is changed; what is left out stays. */
export const copyChangeBody = object({
  version: version(),
  barcode: line(40).trim().min(1, 'Scan or type a barcode.').optional(),
  keepBarcode: boolean().default(false),
  part: line(60).trim().optional(),
  number: copyNumber().optional(),
  type: code().optional(),
  status: status().optional(),
  /** Why it has another status. */
  reason: line().default(''),
  price: price().optional(),
  /** Goes with the price; left out, the one that it had. */
  currency: currency().optional(),
  fund: line(60).optional(),
  supplier: line(60).optional(),
  acquired: isoDay().optional(),
  condition: line().optional(),
  note: line().optional(),
  staffNote: line().optional(),
  loanRule: loanRule().optional(),
  /** Local fields that become another; an empty value takes what is there away. */
  local: localBody().optional(),
});
export type CopyChangeBody = InferType<typeof copyChangeBody>;
/** A copy, or a holding, that goes elsewhere. */
export const moveBody = object({ version: version(), to: id().required('Choose where it goes.') });
/** Two copies that have each other's barcodes. */
export const swapBody = object({
  a: object({ id: id().required(), version: version() }).required(),
  b: object({ id: id().required(), version: version() }).required(),
});
export type SwapBody = InferType<typeof swapBody>;
/** A copy that is to be made, with the place where it will stand. */
export const copyRowBody = object({
  ...placeShape,
  class: line(60).trim().default(''),
  barcode: line(40).trim().default(''),
  part: line(60).trim().default(''),
  number: copyNumber().nullable().default(null),
  type: code().defined(),
  price: price().default(null),
  currency: currency().default(''),
  fund: line(60).default(''),
  supplier: line(60).default(''),
  acquired: isoDay().default(''),
  note: line().default(''),
  loanRule: loanRule().default('lends'),
  status: status().default('available'),
});
export type CopyRowBody = InferType<typeof copyRowBody>;
/** Several copies of a record at once. */
export const severalCopiesBody = object({
  record: id().required(),
  rows: array(copyRowBody)
    .min(1, 'There is no copy to add.')
    .max(500, 'At most 500 copies are added at once.')
    .required(),
  /** The label roll of which rows without a barcode take the next numbers. */
  roll: id().nullable().default(null),
  /** Keep barcodes that are not in the form of the library, on purpose. */
  keepBarcodes: boolean().default(false),
  token: reviewed(),
});
export type SeveralCopiesBody = InferType<typeof severalCopiesBody>;

const barcodeLook = shape({
  barcode: text(),
  /** What is wrong with its form. */
  problem: orNull(text()),
  /** What has it. */
  holder: orNull(shape({ copy: whole(), version: whole(), record: whole(), sentence: text() })),
  /** What it was on before. */
  withdrawn: orNull(text()),
  /** That its label is marked as spoiled. */
  spoiled: orNull(text()),
});
/** What is known of a scanned barcode. */
export type BarcodeLook = ValueOf<typeof barcodeLook>;

const permission = 'edit copies' as const;
/** Holdings and copies. */
export const copyApi = {
  addHolding: endpoint({
    method: 'post',
    path: '/holdings',
    summary: 'Add a holding to a record',
    permission,
    body: holdingBody,
    status: 201,
    answer: madeSchema,
    problems: [404],
  }),
  barcode: endpoint({
    method: 'get',
    path: '/barcodes/:barcode',
    summary: 'Whether a barcode is right and free',
    permission: 'look',
    params: { barcode: string().required() },
    answer: barcodeLook,
  }),
  add: endpoint({
    method: 'post',
    path: '/copies',
    summary: 'Add a copy to a holding',
    permission,
    body: copyBody,
    status: 201,
    answer: madeSchema,
    problems: [404],
  }),
  change: endpoint({
    method: 'put',
    path: '/copies/:id',
    summary: 'Change a copy',
    permission,
    body: copyChangeBody,
    answer: doneSchema,
    problems: [404],
  }),
  changeHolding: endpoint({
    method: 'put',
    path: '/holdings/:id',
    summary: 'Change a holding',
    permission,
    body: holdingChangeBody,
    answer: doneSchema,
    problems: [404],
  }),
  removeHolding: endpoint({
    method: 'post',
    path: '/holdings/:id/remove',
    summary: 'Delete a holding without copies',
    permission,
    body: object({ version: version() }),
    answer: doneSchema,
    problems: [404],
  }),
  moveHolding: endpoint({
    method: 'post',
    path: '/holdings/:id/move',
    summary: 'Move a holding with its copies to another record',
    permission,
    body: moveBody,
    answer: doneSchema,
    problems: [404],
  }),
  joinHolding: endpoint({
    method: 'post',
    path: '/holdings/:id/join',
    summary: 'Join a holding to another one of the same record: its copies go there',
    permission,
    body: moveBody,
    answer: doneSchema,
    problems: [404],
  }),
  move: endpoint({
    method: 'post',
    path: '/copies/:id/move',
    summary: 'Move a copy to another holding',
    permission,
    body: moveBody,
    answer: doneSchema,
    problems: [404],
  }),
  swap: endpoint({
    method: 'post',
    path: '/copies/swap',
    summary: 'Swap the barcodes of two copies: their labels were stuck on each other',
    permission,
    body: swapBody,
    answer: doneSchema,
    problems: [404],
  }),
  reviewSeveral: endpoint({
    method: 'post',
    path: '/copies/several/review',
    summary: 'What adding several copies would make; what is wrong with a row is told by its cell',
    permission,
    body: severalCopiesBody,
    answer: reviewSchema,
    problems: [404],
  }),
  addSeveral: endpoint({
    method: 'post',
    path: '/copies/several',
    summary: 'Add several copies of a record, with the holdings that they need',
    permission,
    body: severalCopiesBody,
    status: 201,
    answer: doneSchema,
    problems: [404],
  }),
};
