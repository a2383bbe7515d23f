import {
  LABEL_CODES,
  LABEL_KINDS,
  labelSheetProblems,
  type LabelCode,
  type LabelKind,
  type LabelSheet,
} from '@osier/core/labels';
import { array, mixed, object, type InferType } from 'yup';
import { amount, listOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { id, line } from '../inputs';
import { copySearchBody } from './copy-lists';
import { number } from '../values';

const millimetres = () => number().min(0, 'Not below 0.').max(1000, 'At most 1000 mm.').required();
const many = (most: number) => number().integer().min(1).max(most).required();
const labelSheetBody = object({
  name: line(80).default(''),
  pageWidth: millimetres(),
  pageHeight: millimetres(),
  columns: many(20),
  rows: many(60),
  left: millimetres(),
  top: millimetres(),
  width: millimetres(),
  height: millimetres(),
  gapX: millimetres(),
  gapY: millimetres(),
}).test('sheet', function (sheet) {
  const [problem] = labelSheetProblems(sheet satisfies LabelSheet);
  return problem
    ? this.createError({ path: `${this.path}.${problem.field}`, message: problem.message })
    : true;
});
/** Labels that are to be printed: of which copies, what kind, on which sheet. */
export const labelsBody = object({
  kind: mixed<LabelKind>()
    .oneOf([...LABEL_KINDS])
    .required(),
  code: mixed<LabelCode>()
    .oneOf([...LABEL_CODES])
    .default('code128'),
  sheet: labelSheetBody.required(),
  startAt: number().integer().min(1, 'The first label is 1.').max(1200).default(1),
  /** Of the copies of a record, of those on a pile or of a search, of those that came with a delivery, of these, or of what a withdrawal list has withdrawn. */
  record: id().optional(),
  found: copySearchBody.optional().default(undefined),
  pile: id().optional(),
  delivery: id().optional(),
  copies: array(id().required()).max(1000, 'At most 1,000 labels are printed at once.').optional(),
  list: id().optional(),
}).test('withdrawn', function ({ kind, list }) {
  return (kind === 'withdrawn') === (list !== undefined)
    ? true
    : this.createError({
        path: 'kind',
        message:
          list === undefined
            ? 'Labels “withdrawn” are printed from a withdrawal list.'
            : 'What was withdrawn gets labels “withdrawn” only.',
      });
});
export type LabelsBody = InferType<typeof labelsBody>;

const labelsSet = shape({
  pages: whole(),
  count: whole(),
  /** The labels of the first page as they will be printed, all in millimetres but the size of type, which is in points. */
  labels: listOf(
    shape({
      copy: whole(),
      barcode: text(),
      x: amount(),
      y: amount(),
      texts: listOf(shape({ text: text(), x: amount(), y: amount(), size: amount() })),
      bars: listOf(shape({ x: amount(), y: amount(), width: amount(), height: amount() })),
    }),
  ),
  /** What does not fit, of all labels. */
  problems: listOf(shape({ copy: whole(), barcode: text(), record: orNull(whole()), message: text() })),
});
/** Labels as they will be printed. */
export type LabelsPreview = ValueOf<typeof labelsSet>;

/** Labels of copies. */
export const labelApi = {
  preview: endpoint({
    method: 'post',
    path: '/labels/preview',
    summary: 'What labels of copies will look like, and what does not fit',
    permission: 'look',
    body: labelsBody,
    answer: labelsSet,
    problems: [404, 422],
  }),
  print: endpoint({
    method: 'post',
    path: '/labels/pdf',
    summary: 'Labels of copies as a PDF',
    permission: 'look',
    body: labelsBody,
    answer: { media: ['application/pdf'] },
    problems: [404, 422],
  }),
};
