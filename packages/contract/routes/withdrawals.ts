import { mixed, object } from 'yup';
import { listOf, orNull, shape, text, whole } from '../answers';
import { endpoint } from '../endpoint';
import { doneSchema, madeSchema, reviewSchema } from '../objects/acts';
import { number, string } from '../values';
import {
  withdrawalListRowSchema,
  withdrawalRowSchema,
  withdrawalListSchema,
  pullRowSchema,
  registerRowSchema,
  unionItemSchema,
  weedSchema,
  toldCounts,
  tellingSchema,
} from './withdrawal-answers';
import {
  withdrawalListBody,
  changeListBody,
  codesBody,
  fillListBody,
  withdrawBody,
  restoreBody,
  unionBody,
  weedQuery,
  UNION_FORMATS,
  registerQuery,
  type UnionFormat,
} from './withdrawal-bodies';

const prepare = 'prepare withdrawals' as const;
/** Withdrawal lists and the register. */
export const withdrawalApi = {
  lists: endpoint({
    method: 'get',
    path: '/withdrawal-lists',
    summary: 'Withdrawal lists, newest first',
    permission: 'look',
    answer: listOf(withdrawalListRowSchema),
  }),
  start: endpoint({
    method: 'post',
    path: '/withdrawal-lists',
    summary: 'Start a withdrawal list',
    permission: prepare,
    body: withdrawalListBody,
    status: 201,
    answer: madeSchema,
  }),
  read: endpoint({
    method: 'get',
    path: '/withdrawal-lists/:id',
    summary: 'A list with a verdict for every scan',
    permission: 'look',
    answer: withdrawalListSchema,
  }),
  scan: endpoint({
    method: 'post',
    path: '/withdrawal-lists/:id/scans',
    summary: 'Add scanned or pasted barcodes; the verdicts on the last twenty of them',
    permission: 'scan',
    body: codesBody,
    answer: shape({ added: whole(), verdicts: listOf(withdrawalRowSchema) }),
  }),
  undoScan: endpoint({
    method: 'post',
    path: '/withdrawal-lists/:id/scans/undo',
    summary: 'Undo one’s own last scan',
    permission: 'scan',
    answer: shape({ code: orNull(text()) }),
  }),
  change: endpoint({
    method: 'put',
    path: '/withdrawal-lists/:id',
    summary: 'Change name, reason or branch of a list',
    permission: prepare,
    body: changeListBody,
    answer: doneSchema,
    problems: [409],
  }),
  remove: endpoint({
    method: 'delete',
    path: '/withdrawal-lists/:id',
    summary: 'Delete an open list; its copies stay as they are',
    permission: prepare,
    answer: doneSchema,
  }),
  fill: endpoint({
    method: 'post',
    path: '/withdrawal-lists/:id/fill',
    summary:
      'Add the copies of a pile, those that a stocktake misses, or candidates of a shelf, to be pulled',
    permission: prepare,
    body: fillListBody,
    answer: shape({ added: whole() }),
  }),
  weed: endpoint({
    method: 'get',
    path: '/weeding',
    summary: 'The copies of a shelf by year of publication and the year in which they were last lent or seen',
    permission: 'look',
    query: weedQuery,
    answer: weedSchema,
  }),
  pull: endpoint({
    method: 'get',
    path: '/withdrawal-lists/:id/pull',
    summary:
      'The copies of a list that are to be pulled, in the order of the shelf; those that were scanned are ticked',
    permission: 'look',
    answer: listOf(pullRowSchema),
  }),
  takeOff: endpoint({
    method: 'delete',
    path: '/withdrawal-lists/:id/scans/:scan',
    summary: 'Remove a scan from the list',
    permission: prepare,
    answer: shape({ removed: whole() }),
  }),
  reviewWithdraw: endpoint({
    method: 'post',
    path: '/withdrawal-lists/:id/withdraw/review',
    summary: 'What withdrawing these copies would do',
    permission: prepare,
    body: withdrawBody,
    answer: reviewSchema,
  }),
  withdraw: endpoint({
    method: 'post',
    path: '/withdrawal-lists/:id/withdraw',
    summary: 'Withdraw copies of the list; many of them by a job',
    permission: 'confirm withdrawals',
    body: withdrawBody,
    answer: shape({ entry: orNull(whole()), sentence: text(), job: orNull(whole()) }),
    problems: [409],
  }),
  register: endpoint({
    method: 'get',
    path: '/register',
    summary: 'The register of withdrawn copies',
    permission: 'look',
    query: registerQuery.shape({ after: string().max(1000).optional() }),
    answer: shape({
      rows: listOf(registerRowSchema),
      next: orNull(text()),
      total: whole(),
      /** What all of them cost together, by currency (ISO 4217, '' for the library's own), in hundredths. */
      sums: listOf(shape({ currency: text(), price: whole() })),
    }),
  }),
  reviewRestore: endpoint({
    method: 'post',
    path: '/register/restore/review',
    summary: 'What undoing the withdrawal of single copies would do',
    permission: 'confirm withdrawals',
    body: restoreBody,
    answer: reviewSchema,
    problems: [409],
  }),
  restore: endpoint({
    method: 'post',
    path: '/register/restore',
    summary: 'Undo the withdrawal of single copies',
    permission: 'confirm withdrawals',
    body: restoreBody,
    answer: doneSchema,
    problems: [409],
  }),
  registerReasons: endpoint({
    method: 'get',
    path: '/register/reasons',
    summary: 'The reasons that stand in the register, with how often each does',
    permission: 'look',
    answer: listOf(shape({ reason: text(), n: whole() })),
  }),
  registerFile: endpoint({
    method: 'get',
    path: '/register/export',
    summary: 'The register, or what is found in it, as a table',
    permission: 'look',
    query: registerQuery,
    answer: { media: ['text/csv'] },
  }),
  union: endpoint({
    method: 'get',
    path: '/union-notices/open',
    summary: 'What the union catalogue is to be told: records deleted, holdings removed, what is back',
    permission: 'look',
    query: object({ after: number().integer().min(0).default(0) }),
    answer: shape({
      rows: listOf(unionItemSchema),
      next: orNull(whole()),
      ...toldCounts,
      /** Copies of which the loans desk is still to be told, and which it refused to be told of. */
      loansDesk: shape({ waiting: whole(), refused: whole() }),
    }),
  }),
  tellings: endpoint({
    method: 'get',
    path: '/union-notices',
    summary: 'Notices to the union catalogue, newest first',
    permission: 'look',
    answer: listOf(tellingSchema),
  }),
  tellUnion: endpoint({
    method: 'post',
    path: '/union-notices',
    summary: 'Mark all that is to be told as told, as one notice whose file can be sent',
    permission: 'confirm withdrawals',
    body: unionBody,
    status: 201,
    answer: madeSchema,
  }),
  unionFile: endpoint({
    method: 'get',
    path: '/union-notices/:id/file',
    summary: 'The file of a notice: records and holdings with record status d (deleted) or n (back)',
    permission: 'look',
    query: object({
      as: mixed<UnionFormat>()
        .oneOf([...UNION_FORMATS])
        .default('iso2709'),
    }),
    answer: { media: ['application/marc', 'application/marcxml+xml'] },
  }),
};
