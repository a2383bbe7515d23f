import { COPY_STATUSES } from '@osier/core/holdings';
import { boolean, mixed, object, type InferType } from 'yup';
import { orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { code, id, line, price, version } from '../inputs';
import { doneSchema, madeSchema } from '../objects/acts';
import { isoDay, number, string } from '../values';

/** A new holding. */
export const holdingBody = object({
  record: id().required(),
  branch: code().defined(),
  location: code().defined(),
  scheme: mixed<'lc' | 'dewey' | 'nlm' | 'own'>().oneOf(['lc', 'dewey', 'nlm', 'own']).required(),
  prefix: line(40).default(''),
  class: line(60).trim().required('A call number needs a class.'),
  item: line(60).default(''),
  suffix: line(40).default(''),
  note: line().default(''),
});
export type HoldingBody = InferType<typeof holdingBody>;
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
  fund: line(60).default(''),
  supplier: line(60).default(''),
  acquired: isoDay().default(''),
  condition: line().default(''),
  note: line().default(''),
  /** Keep a barcode that is not in the house's form, on purpose. */
  keepBarcode: boolean().default(false),
});
export type CopyBody = InferType<typeof copyBody>;
/** What of a copy is changed. */
export const copyChangeBody = object({
  version: version(),
  status: mixed<(typeof COPY_STATUSES)[number]>()
    .oneOf([...COPY_STATUSES])
    .optional(),
  note: line().optional(),
  part: line(60).trim().optional(),
  number: number()
    .integer()
    .min(1, 'A copy number is 1 or more.')
    .max(9999, 'A copy number is 9999 or less.')
    .optional(),
});

const barcodeLook = shape({
  barcode: text(),
  /** What is wrong with its form. */
  problem: orNull(text()),
  /** What has it. */
  holder: orNull(shape({ copy: whole(), record: whole(), sentence: text() })),
  /** What it was on before. */
  withdrawn: orNull(text()),
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
    summary: 'Change status, note, part or number of a copy',
    permission,
    body: copyChangeBody,
    answer: doneSchema,
  }),
};
