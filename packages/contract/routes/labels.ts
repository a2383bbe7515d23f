import {
  LABEL_CODES,
  LABEL_KINDS,
  labelSheetProblems,
  type LabelCode,
  type LabelKind,
  type LabelSheet,
} from '@osier/core/labels';
import { array, mixed, object, type InferType, type TestContext } from 'yup';
import { amount, listOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { id, line } from '../inputs';
import { doneSchema, madeSchema } from '../objects/acts';
import { copySearchBody } from './copy-lists';
import { versionBody } from './setup';
import { number } from '../values';

const millimetres = () => number().min(0, 'Not below 0.').max(1000, 'At most 1000 mm.').required();
const many = (most: number) => number().integer().min(1).max(most).required();
const sheetShape = {
  name: line(80).trim().default(''),
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
};
/** What of a sheet does not fit on its page, at its field. */
function fitsOnPage(this: TestContext, sheet: LabelSheet) {
  const [problem] = labelSheetProblems(sheet);
  return problem
    ? this.createError({ path: `${this.path}.${problem.field}`, message: problem.message })
    : true;
}
const labelSheet = object(sheetShape).test('sheet', fitsOnPage);
/** Since one's last print of labels of this kind. */
export const LAST_PRINT = 'last print';
/** Labels that are to be printed: of which copies, what kind, on which sheet. */
export const labelsBody = object({
  kind: mixed<LabelKind>()
    .oneOf([...LABEL_KINDS])
    .required(),
  code: mixed<LabelCode>()
    .oneOf([...LABEL_CODES])
    .default('code128'),
  sheet: labelSheet.required(),
  startAt: number().integer().min(1, 'The first label is 1.').max(1200).default(1),
  /** Of the copies of a record, of those on a pile or of a search, of those that came with a delivery, of these, or of what a withdrawal list has withdrawn. */
  record: id().optional(),
  found: copySearchBody.optional().default(undefined),
  pile: id().optional(),
  delivery: id().optional(),
  copies: array(id().required()).max(1000, 'At most 1,000 labels are printed at once.').optional(),
  list: id().optional(),
  /** Of those that one has made since this instant (ISO 8601), or since one's `last print` of such labels. */
  since: line(40)
    .test(
      'instant',
      'Give a date and time, or “last print”.',
      (v) =>
        v === undefined || v === LAST_PRINT || (/^\d{4}-\d\d-\d\d/.test(v) && !Number.isNaN(Date.parse(v))),
    )
    .optional(),
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

/** A sheet of labels that is kept. */
export const labelSheetBody = object({
  sheet: object({ ...sheetShape, name: line(80).trim().required('Give the sheet a name.') })
    .test('sheet', fitsOnPage)
    .required(),
  /** The kept sheet that becomes this one; without it a new one is kept. */
  id: id().optional(),
  version: number().integer().optional(),
});
export type LabelSheetBody = InferType<typeof labelSheetBody>;
const labelSheetRow = shape({
  id: whole(),
  version: whole(),
  sheet: shape({
    ...{ name: text(), pageWidth: amount(), pageHeight: amount(), columns: whole(), rows: whole() },
    ...{ left: amount(), top: amount(), width: amount(), height: amount(), gapX: amount(), gapY: amount() },
  }),
});
/** A sheet of labels as it is kept. */
export type LabelSheetRow = ValueOf<typeof labelSheetRow>;

const labelsSet = shape({
  pages: whole(),
  count: whole(),
  /** Since when the copies were made (ISO 8601, UTC); null where it was not asked for. */
  since: orNull(text()),
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
  sheets: endpoint({
    method: 'get',
    path: '/label-sheets',
    summary: 'The sheets of labels that are kept',
    permission: 'look',
    answer: listOf(labelSheetRow),
  }),
  keepSheet: endpoint({
    method: 'post',
    path: '/label-sheets',
    summary: 'Keep a sheet of labels under its name, or change one',
    permission: 'edit copies',
    body: labelSheetBody,
    answer: madeSchema,
    problems: [404],
  }),
  removeSheet: endpoint({
    method: 'post',
    path: '/label-sheets/:id/remove',
    summary: 'Delete a sheet of labels',
    permission: 'edit copies',
    body: versionBody,
    answer: doneSchema,
    problems: [404],
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
