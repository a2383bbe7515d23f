import { CHECK_RULES, type CheckRule } from '@osier/core/barcodes';
import { array, boolean, mixed, object, type InferType } from 'yup';
import { flag, listOf, orNull, shape, text, whole, wordOf } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { line, version } from '../inputs';
import { doneSchema, madeSchema } from '../objects/acts';
import { settingsShape, supplierSheetSchema } from '../objects/settings';
import { number, string } from '../values';
import { versionBody } from './setup';

const sheetShape = {
  name: line(80).required('Give the supplier a name.'),
  files: array(line(120).required()).max(40).required(),
  organisations: array(line(40).required()).max(40).required(),
  ...settingsShape,
};
/** What a supplier sheet is. */
export const sheetSchema = object(sheetShape);
/** A new supplier sheet. */
export const sheetBody = object({ sheet: object(sheetShape).required() });
export type SheetBody = InferType<typeof sheetBody>;
/** A supplier sheet that is changed. */
export const sheetChangeBody = object({ version: version(), sheet: object(sheetShape).required() });
const rollShape = {
  name: line(80).required('Give the roll a name.'),
  prefix: string()
    .max(18)
    .matches(/^[A-Z0-9/.+-]*$/i, 'Letters, digits and - . / + only.')
    .default(''),
  from: number().integer().min(0).required('Type the first number.'),
  to: number().integer().min(0).required('Type the last number.'),
  length: number().integer().min(3).max(20).required('How many digits does a barcode have?'),
  /** True and false stand for modulo 10 and none. */
  check: mixed<CheckRule>()
    .transform((given: unknown) => (given === true ? 'mod10' : given === false ? 'none' : given))
    .oneOf([...CHECK_RULES])
    .required(),
  supplier: line(80).default(''),
  branches: array(line(60).required()).default([]),
  types: array(line(60).required()).default([]),
  note: line(200).default(''),
  spoiled: array(line(45).required()).max(500).default([]),
  warnBelow: number().integer().min(0).default(0),
  isClosed: boolean().default(false),
};
/** What a label roll is. */
export const rollSchema = object(rollShape);
/** A new label roll. */
export const rollBody = object({ roll: object(rollShape).required() });
export type RollBody = InferType<typeof rollBody>;
/** A label roll that is changed. */
export const rollChangeBody = object({ version: version(), roll: object(rollShape).required() });

const sheetRow = shape({ id: whole(), version: whole(), sheet: supplierSheetSchema });
/** A supplier sheet as it is kept. */
export type SheetRow = ValueOf<typeof sheetRow>;
const rollRow = shape({
  id: whole(),
  version: whole(),
  roll: shape({
    name: text(),
    prefix: text(),
    from: whole(),
    to: whole(),
    length: whole(),
    check: wordOf(CHECK_RULES),
    supplier: text(),
    branches: listOf(text()),
    types: listOf(text()),
    note: text(),
    spoiled: listOf(text()),
    warnBelow: whole(),
    isClosed: flag(),
  }),
  /** All numbers of the roll: on copies now or before, spoiled, left behind the last that was used, and passed over before it. */
  counts: shape({
    ...{ all: whole(), used: whole(), spoiled: whole(), left: whole(), passed: whole() },
    isLow: flag(),
  }),
  /** The number that is given next; null at the end of a roll, and of a closed one. */
  next: orNull(text()),
});
/** A label roll with how much of it is used. */
export type RollRow = ValueOf<typeof rollRow>;

const permission = 'set up' as const;
/** Supplier sheets and label rolls. */
export const supplierApi = {
  sheets: endpoint({
    method: 'get',
    path: '/supplier-sheets',
    summary: 'The supplier sheets',
    permission: 'look',
    answer: listOf(sheetRow),
  }),
  keepSheet: endpoint({
    method: 'post',
    path: '/supplier-sheets',
    summary: 'Make a supplier sheet',
    permission,
    body: sheetBody,
    answer: madeSchema,
  }),
  changeSheet: endpoint({
    method: 'put',
    path: '/supplier-sheets/:id',
    summary: 'Change a supplier sheet',
    permission,
    body: sheetChangeBody,
    answer: madeSchema,
  }),
  removeSheet: endpoint({
    method: 'post',
    path: '/supplier-sheets/:id/remove',
    summary: 'Delete a supplier sheet',
    permission,
    body: versionBody,
    answer: doneSchema,
  }),
  rolls: endpoint({
    method: 'get',
    path: '/label-rolls',
    summary: 'The label rolls and how much of each is used',
    permission: 'look',
    answer: listOf(rollRow),
  }),
  keepRoll: endpoint({
    method: 'post',
    path: '/label-rolls',
    summary: 'Make a label roll',
    permission,
    body: rollBody,
    answer: madeSchema,
  }),
  changeRoll: endpoint({
    method: 'put',
    path: '/label-rolls/:id',
    summary: 'Change a label roll',
    permission,
    body: rollChangeBody,
    answer: madeSchema,
  }),
  removeRoll: endpoint({
    method: 'post',
    path: '/label-rolls/:id/remove',
    summary: 'Delete a label roll',
    permission,
    body: versionBody,
    answer: doneSchema,
  }),
};
