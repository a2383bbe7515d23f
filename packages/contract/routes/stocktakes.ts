import { COPY_OUTCOMES, FINDING_KINDS, type CopyOutcome, type StockFindingKind } from '@osier/core/stocktake';
import { mixed, object } from 'yup';
import { listOf, orNull, shape, text, whole } from '../answers';
import { endpoint } from '../endpoint';
import { code, line } from '../inputs';
import { doneSchema, jobStateSchema, madeSchema, reviewSchema } from '../objects/acts';
import { isoDay, number, string } from '../values';
import { page, reviewed } from './reviews';
import {
  findingPageSchema,
  scanAnswerSchema,
  shelfPageSchema,
  spineSchema,
  stocktakeDetailSchema,
  stocktakeReportSchema,
  stocktakeRowSchema,
  stretchReviewSchema,
  stripPartSchema,
} from './stocktake-answers';
import {
  lastScanBody,
  scanBody,
  scanListBody,
  settleBody,
  stocktakeBody,
  stretchReviewBody,
} from './stocktake-bodies';

const after = () => string().max(1000).optional();
const manage = 'manage stocktakes' as const;
/** Stocktakes: start, scan, settle, close. */
export const stocktakeApi = {
  list: endpoint({
    method: 'get',
    path: '/stocktakes',
    summary: 'Stocktakes with their progress',
    permission: 'look',
    answer: listOf(stocktakeRowSchema),
  }),
  reviewStretch: endpoint({
    method: 'post',
    path: '/stocktakes/review',
    summary:
      'What a stretch holds: copies that are expected and accounted for, open stocktakes that overlap it',
    permission: manage,
    body: stretchReviewBody,
    answer: stretchReviewSchema,
  }),
  start: endpoint({
    method: 'post',
    path: '/stocktakes',
    summary: 'Start a stocktake of a stretch',
    permission: manage,
    body: stocktakeBody,
    status: 201,
    answer: madeSchema,
  }),
  read: endpoint({
    method: 'get',
    path: '/stocktakes/:id',
    summary:
      'A stocktake: how many copies stood, are missing, were skipped, are accounted for; what is to be settled',
    permission: 'look',
    answer: stocktakeDetailSchema,
  }),
  findings: endpoint({
    method: 'get',
    path: '/stocktakes/:id/findings',
    summary: 'Findings of one kind, settled ones too, in the order of the shelf',
    permission: 'look',
    query: object({
      kind: mixed<StockFindingKind>()
        .oneOf([...FINDING_KINDS])
        .default('missing'),
      after: after(),
    }),
    answer: findingPageSchema,
  }),
  copies: endpoint({
    method: 'get',
    path: '/stocktakes/:id/outcomes',
    summary: 'Copies of the stretch with one outcome, in the order of the shelf',
    permission: 'look',
    query: object({
      outcome: mixed<CopyOutcome>()
        .oneOf([...COPY_OUTCOMES])
        .default('missing'),
      after: after(),
    }),
    answer: findingPageSchema,
  }),
  file: endpoint({
    method: 'get',
    path: '/stocktakes/:id/export',
    summary: 'All copies of the stretch with what became of them (`of` copies), or the findings, as a table',
    permission: 'look',
    query: object({ of: line(20).default('copies') }),
    answer: { media: ['text/csv'] },
  }),
  report: endpoint({
    method: 'get',
    path: '/stocktakes/:id/report',
    summary:
      'What a stocktake found, counted by outcome, class and location; as it was kept when it was closed',
    permission: 'look',
    answer: stocktakeReportSchema,
  }),
  strip: endpoint({
    method: 'get',
    path: '/stocktakes/:id/strip',
    summary: 'The pieces of the pictures of all walks',
    permission: 'look',
    answer: listOf(stripPartSchema),
  }),
  spines: endpoint({
    method: 'get',
    path: '/stocktakes/:id/spines',
    summary: 'The spines of one piece',
    permission: 'look',
    query: object({ run: number().integer().min(0).default(0), part: number().integer().min(0).default(0) }),
    answer: listOf(spineSchema),
  }),
  shelf: endpoint({
    method: 'get',
    path: '/stocktakes/:id/shelf',
    summary: 'The copies of the stretch in the order of the shelf, for a device that walks without network',
    permission: 'scan',
    query: object({ after: after() }),
    answer: shelfPageSchema,
  }),
  pace: endpoint({
    method: 'get',
    path: '/stocktakes/:id/pace',
    summary: 'How many scans were made in each ten minutes (UTC), as they were made; without files',
    permission: 'look',
    answer: listOf(shape({ from: text(), scans: whole() })),
  }),
  scan: endpoint({
    method: 'post',
    path: '/stocktakes/:id/scans',
    summary: 'Add scans as they are made; what each of them is, what stands next, how far the walk is',
    permission: 'scan',
    body: scanBody,
    answer: scanAnswerSchema,
  }),
  undoScan: endpoint({
    method: 'post',
    path: '/stocktakes/:id/scans/undo',
    summary: 'Undo the last scan of a walk',
    permission: 'scan',
    body: lastScanBody,
    answer: shape({ code: orNull(text()), expected: whole(), found: whole() }),
  }),
  load: endpoint({
    method: 'post',
    path: '/stocktakes/:id/load',
    summary: 'Load the codes of a scanner’s file',
    permission: 'scan',
    body: scanListBody,
    answer: doneSchema,
  }),
  loadFile: endpoint({
    method: 'post',
    path: '/stocktakes/:id/load-file',
    summary:
      'Load a scanner’s file of any length; the body is the file, `name` its name, `on` the day of the walk',
    permission: 'scan',
    query: object({
      name: line(200),
      on: isoDay().default(''),
      location: code().default(''),
      again: line(5).default(''),
    }),
    body: 'file',
    status: 202,
    answer: jobStateSchema,
  }),
  reviewSettle: endpoint({
    method: 'post',
    path: '/stocktakes/:id/settle/review',
    summary: 'What settling these findings would do',
    permission: 'edit copies',
    body: settleBody.shape(page),
    answer: reviewSchema,
    problems: [409],
  }),
  settle: endpoint({
    method: 'post',
    path: '/stocktakes/:id/settle',
    summary: 'Settle findings; many of them by a job',
    permission: 'edit copies',
    body: settleBody,
    answer: shape({ entry: orNull(whole()), sentence: text(), job: orNull(whole()) }),
    problems: [409],
  }),
  reviewClose: endpoint({
    method: 'post',
    path: '/stocktakes/:id/close/review',
    summary: 'What closing a stocktake would do',
    permission: manage,
    answer: reviewSchema,
  }),
  close: endpoint({
    method: 'post',
    path: '/stocktakes/:id/close',
    summary:
      'Close a stocktake: the loans desk is asked once more, copies get the day they were seen, the report is kept',
    permission: manage,
    body: object({ token: reviewed() }),
    status: 202,
    answer: jobStateSchema,
  }),
};
