import { LAST_COPY, type LastCopy } from '@osier/core/house';
import { REASON_CODES } from '@osier/core/withdrawals';
import { array, mixed, object, type InferType } from 'yup';
import { flag, listOf, wordOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { code, id, line, version } from '../inputs';
import { doneSchema, madeSchema, reviewSchema } from '../objects/acts';
import { loanState, withdrawnSchema } from '../objects/holdings';
import { isoDay, number, string } from '../values';
import { page, reviewed } from './reviews';

/** A new withdrawal list. */
export const withdrawalListBody = object({
  name: line().required('Give the list a name.'),
  branch: code().required('Choose a branch.'),
  reason: line().default(''),
});
/** What of a list is changed: its name, its reason, whose copies it is for. */
export const changeListBody = withdrawalListBody.shape({ version: version() });
/** Codes that were scanned or pasted. */
export const codesBody = object({
  codes: array(string().max(60).required())
    .max(20_000, 'At most 20,000 scans at once. Load more as a file.')
    .required(),
  name: line().default(''),
});
/** A pile whose copies are added to a list, or a stocktake whose missing copies are. */
export const fillListBody = object({ pile: id().optional(), stocktake: id().optional() }).test(
  'one',
  'Choose a pile, or a stocktake.',
  ({ pile, stocktake }) => (pile === undefined) !== (stocktake === undefined),
);
export type FillListBody = InferType<typeof fillListBody>;
/** Copies that are withdrawn at once. */
const MOST = 20_000;
const lastCopy = () => mixed<LastCopy>().oneOf([...LAST_COPY]);
/** Copies of a list that are withdrawn. */
export const withdrawBody = object({
  copies: array(id().required()).min(1, 'Choose the copies to withdraw.').max(MOST).required(),
  /** Copies whose stop the head overrules, and why. */
  overrule: object({
    copies: array(id().required()).max(MOST).default([]),
    reason: line(500).trim().default(''),
  }).test(
    'reason',
    'Say why they may be withdrawn all the same.',
    ({ copies, reason }) => copies.length === 0 || reason !== '',
  ),
  /** What becomes of records that lose their last copy; absent: as the house has it. */
  lastCopy: lastCopy().optional(),
  /** The same for single records, where it is another than for the rest. */
  lastCopies: array(object({ record: id().required(), how: lastCopy().required() }).required())
    .max(MOST)
    .default([]),
  ...page,
  token: reviewed(),
});
export type WithdrawBody = InferType<typeof withdrawBody>;

/** Rows of the register whose copies come back into the catalogue. */
export const restoreBody = object({
  rows: array(id().required()).min(1, 'Choose the copies that come back.').max(500).required(),
  token: reviewed(),
});

/** Formats of the file of a notice to the union catalogue. */
export const UNION_FORMATS = ['iso2709', 'marcxml'] as const;
export type UnionFormat = (typeof UNION_FORMATS)[number];
/** What the union catalogue is told: all that is to be told; `holdings` is how much that was when it was looked at. */
export const unionBody = object({ holdings: number().integer().min(0).optional() });
export type UnionBody = InferType<typeof unionBody>;

/** In what order the register is shown. */
export const REGISTER_ORDERS = ['on', 'title', 'number', 'price'] as const;
/** What of the register is shown. */
export const registerQuery = object({
  q: line(200).default(''),
  branch: code().default(''),
  reason: line().default(''),
  from: isoDay().default(''),
  to: isoDay().default(''),
  sort: mixed<(typeof REGISTER_ORDERS)[number]>()
    .oneOf([...REGISTER_ORDERS])
    .default('on'),
  down: mixed<'yes' | 'no'>().oneOf(['yes', 'no']).default('yes'),
});
export type RegisterQuery = InferType<typeof registerQuery>;

const listParts = {
  id: whole(),
  name: text(),
  branch: text(),
  reason: text(),
  state: wordOf(['open', 'done']),
  codes: whole(),
  by: text(),
  madeOn: text(),
};
const listRow = shape(listParts);
/** A withdrawal list with how many codes it has. */
export type WithdrawalListRow = ValueOf<typeof listRow>;
const verdict = shape({
  code: text(),
  candidate: orNull(
    shape({
      copyId: whole(),
      holdingId: whole(),
      recordId: whole(),
      title: text(),
      branch: text(),
      status: text(),
      due: orNull(text()),
      loan: loanState(),
      price: orNull(whole()),
    }),
  ),
  verdict: wordOf(['clear', 'caution', 'stop']),
  reasons: listOf(
    shape({
      code: wordOf(REASON_CODES),
      verdict: wordOf(['caution', 'stop']),
      message: text(),
    }),
  ),
  lastAtBranch: flag(),
  lastAnywhere: flag(),
  /** The same code stands further up: it counts once. */
  again: flag(),
  /** All that stops it may be overruled by the head. */
  overrulable: flag(),
  scan: whole(),
  /** It was put on the list from elsewhere, and is to be pulled from the shelf; null for a copy that was scanned. */
  pulled: orNull(flag()),
  callNumber: text(),
  place: text(),
});
const list = shape({ ...listParts, version: whole(), verdicts: listOf(verdict), loansDesk: flag() });
/** A withdrawal list with its verdicts as of now. */
export type WithdrawalList = ValueOf<typeof list>;
/** A scan of a list with its verdict. */
export type WithdrawalRow = ValueOf<typeof verdict>;
const pullRow = shape({
  ...{ code: text(), title: text(), callNumber: text(), place: text(), status: text() },
  pulled: flag(),
});
/** A copy that is to be pulled from the shelf, and whether it was. */
export type PullRow = ValueOf<typeof pullRow>;
const registerRow = shape({ id: whole(), entry: whole(), restored: flag(), withdrawn: withdrawnSchema });
/** A row of the register of withdrawn copies; `restored` when its withdrawal was undone. */
export type RegisterRow = ValueOf<typeof registerRow>;

const unionItem = shape({
  holding: whole(),
  record: whole(),
  title: text(),
  callNumber: text(),
  branch: text(),
  location: text(),
  withdrawnOn: text(),
  /** The record is deleted; a holding of it is removed; what was told as gone is back. */
  what: wordOf(['record', 'holding', 'back']),
  copies: whole(),
});
/** A holding that went or came back, of which the union catalogue is to be told. */
export type UnionItem = ValueOf<typeof unionItem>;
const toldCounts = { holdings: whole(), records: whole(), back: whole() };
const telling = shape({ id: whole(), at: text(), by: text(), ...toldCounts });

const prepare = 'prepare withdrawals' as const;
/** Withdrawal lists and the register. */
export const withdrawalApi = {
  lists: endpoint({
    method: 'get',
    path: '/withdrawal-lists',
    summary: 'Withdrawal lists, newest first',
    permission: 'look',
    answer: listOf(listRow),
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
    answer: list,
  }),
  scan: endpoint({
    method: 'post',
    path: '/withdrawal-lists/:id/scans',
    summary: 'Add scanned or pasted barcodes; the verdicts on the last twenty of them',
    permission: 'scan',
    body: codesBody,
    answer: shape({ added: whole(), verdicts: listOf(verdict) }),
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
    summary: 'Add the copies of a pile, or those that a stocktake misses, to be pulled',
    permission: prepare,
    body: fillListBody,
    answer: shape({ added: whole() }),
  }),
  pull: endpoint({
    method: 'get',
    path: '/withdrawal-lists/:id/pull',
    summary:
      'The copies of a list that are to be pulled, in the order of the shelf; those that were scanned are ticked',
    permission: 'look',
    answer: listOf(pullRow),
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
      rows: listOf(registerRow),
      next: orNull(text()),
      total: whole(),
      /** In hundredths: what all of them cost together. */
      price: whole(),
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
      rows: listOf(unionItem),
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
    answer: listOf(telling),
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
