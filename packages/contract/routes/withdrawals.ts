import { array, object } from 'yup';
import { flag, listOf, wordOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { code, id, line, wholeQuery } from '../inputs';
import { doneSchema, madeSchema, reviewSchema } from '../objects/acts';
import { loanState, withdrawnSchema } from '../objects/holdings';
import { string } from '../values';
import { reviewed } from './reviews';

/** A new withdrawal list. */
export const withdrawalListBody = object({
  name: line().required('Give the list a name.'),
  branch: code().required('Choose a branch.'),
  reason: line().default(''),
});
/** Codes that were scanned or pasted. */
export const codesBody = object({
  codes: array(string().max(60).required())
    .max(5000, 'At most 5,000 scans at once. Load more as a file.')
    .required(),
  name: line().default(''),
});
/** Copies of a list that are withdrawn. */
export const withdrawBody = object({
  copies: array(id().required()).min(1, 'Choose the copies to withdraw.').max(5000).required(),
  token: reviewed(),
});

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
    }),
  ),
  verdict: wordOf(['clear', 'caution', 'stop']),
  reasons: listOf(
    shape({
      code: wordOf([
        'not-ours',
        'scanned-twice',
        'on-loan',
        'loan-unknown',
        'on-hold',
        'loans-desk',
        'other-branch',
        'lost',
        'in-process',
        'in-transit',
        'reserved',
        'last-at-branch',
        'last-anywhere',
        'withdrawn-before',
      ]),
      verdict: wordOf(['caution', 'stop']),
      message: text(),
    }),
  ),
  lastAtBranch: flag(),
  lastAnywhere: flag(),
  scan: whole(),
  callNumber: text(),
  place: text(),
});
const list = shape({ ...listParts, version: whole(), verdicts: listOf(verdict), loansDesk: flag() });
/** A withdrawal list with its verdicts as of now. */
export type WithdrawalList = ValueOf<typeof list>;
const registerRow = shape({ id: whole(), entry: whole(), restored: flag(), withdrawn: withdrawnSchema });
/** A row of the register of withdrawn copies; `restored` when its withdrawal was undone. */
export type RegisterRow = ValueOf<typeof registerRow>;

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
    summary: 'Add scanned or pasted barcodes',
    permission: prepare,
    body: codesBody,
    answer: shape({ added: whole() }),
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
    summary: 'Withdraw copies of the list',
    permission: 'confirm withdrawals',
    body: withdrawBody,
    answer: doneSchema,
  }),
  register: endpoint({
    method: 'get',
    path: '/register',
    summary: 'The register of withdrawn copies',
    permission: 'look',
    query: object({ before: wholeQuery() }),
    answer: shape({ rows: listOf(registerRow), next: orNull(whole()) }),
  }),
};
