import { SCHEMES, type Scheme } from '@osier/core/callnumbers';
import { array, mixed, object, tuple, type InferType } from 'yup';
import { flag, listOf, wordOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { code, id, line } from '../inputs';
import { doneSchema, jobStateSchema, madeSchema, reviewSchema } from '../objects/acts';
import { scheme } from '../objects/holdings';
import { isoDay, number, string } from '../values';
import { reviewed } from './reviews';
import { codesBody } from './withdrawals';

/** Scans of a stocktake; with where they come from, they may be sent again. */
export const scanBody = object({
  codes: array(string().max(60).required())
    .max(5000, 'At most 5,000 scans at once. Load more as a file.')
    .required(),
  from: object({
    /** Names the device, and its run: a walk from one start of the page to its end. */
    device: string().max(60).required(),
    run: string().max(60).required(),
    /** Of the first code, counted within the run. */
    number: number().integer().min(0).required(),
  })
    .optional()
    .default(undefined),
});
/** Scans of a stocktake as they are sent. */
export type ScanBody = InferType<typeof scanBody>;
/** A new stocktake. */
export const stocktakeBody = object({
  name: line().required('Give the stocktake a name.'),
  branch: code().required('Choose a branch.'),
  locations: array(code().required()).default([]),
  types: array(code().required()).default([]),
  scheme: mixed<Scheme>()
    .oneOf([...SCHEMES])
    .default('dewey'),
  from: line(60).default(''),
  to: line(60).default(''),
  seenSince: isoDay().default(''),
});
export type StocktakeBody = InferType<typeof stocktakeBody>;
/** Findings that are settled, and where a copy belongs from now on. */
export const settleBody = object({
  items: array(
    object({
      copy: id().required(),
      act: mixed<'mark-missing' | 'mark-found' | 'correct-location'>()
        .oneOf(['mark-missing', 'mark-found', 'correct-location'])
        .required(),
    }).required(),
  )
    .min(1, 'Choose findings to settle.')
    .max(20000)
    .required(),
  /** Where copies whose location is corrected belong from now on. */
  location: code().default(''),
  token: reviewed(),
});
export type SettleBody = InferType<typeof settleBody>;

const rowParts = {
  id: whole(),
  version: whole(),
  stocktake: shape({
    name: text(),
    stretch: shape({
      branch: text(),
      locations: listOf(text()),
      types: listOf(text()),
      scheme: scheme(),
      from: text(),
      to: text(),
    }),
    state: wordOf(['open', 'closed']),
    startedOn: text(),
    closedOn: text(),
    seenSince: text(),
  }),
  expected: whole(),
  found: whole(),
  scans: whole(),
  /** How many things books and shelf do not agree on; null while it is open. */
  findings: orNull(whole()),
  /** Its stretch, in words. */
  placeName: text(),
};
const stocktakeRow = shape(rowParts);
/** A stocktake with how it stands. */
export type StocktakeRow = ValueOf<typeof stocktakeRow>;

const scanAnswer = shape({
  /** How many were not sent before. */
  added: whole(),
  /** Of the last twenty. */
  verdicts: listOf(
    shape({
      code: text(),
      outcome: wordOf(['in place', 'out-of-order', 'should-not-be-here', 'unknown', 'scanned before']),
      title: text(),
      callNumber: text(),
      message: text(),
    }),
  ),
  /** The expected copy that stands next and was not scanned; null when none does. */
  next: orNull(shape({ barcode: text(), callNumber: text(), title: text() })),
  expected: whole(),
  found: whole(),
});
/** What is said of scans at once. */
export type ScanAnswer = ValueOf<typeof scanAnswer>;

const shelfCopy = shape({
  copyId: whole(),
  barcode: text(),
  recordId: whole(),
  title: text(),
  branch: text(),
  location: text(),
  type: text(),
  callNumber: text(),
  shelfKey: text(),
  status: text(),
  onLoan: flag(),
  lastSeen: text(),
});
const stockFinding = shape({
  kind: wordOf(['not-found', 'should-not-be-here', 'unknown', 'out-of-order']),
  code: text(),
  copy: orNull(shelfCopy),
  message: text(),
  settlements: listOf(wordOf(['mark-missing', 'mark-found', 'correct-location'])),
  near: listOf(text()).optional(),
  between: tuple([orNull(text()), orNull(text())]).optional(),
});
const result = shape({
  expected: whole(),
  found: whole(),
  scans: whole(),
  scannedTwice: whole(),
  accountedFor: whole(),
  findings: listOf(stockFinding),
  spines: listOf(
    shape({
      code: text(),
      callNumber: text(),
      title: text(),
      state: wordOf(['in place', 'out-of-order', 'should-not-be-here', 'unknown', 'not-found']),
      after: text().nullable().optional(),
      jumped: whole().optional(),
    }),
  ),
  jumps: listOf(shape({ after: orNull(text()), count: whole(), from: text(), to: text() })),
});
const stocktakeDetail = shape({ ...rowParts, result, loansDesk: flag() });
/** A stocktake with all that was found. */
export type StocktakeDetail = ValueOf<typeof stocktakeDetail>;

const manage = 'manage stocktakes' as const;
/** Stocktakes: start, scan, settle, close. */
export const stocktakeApi = {
  list: endpoint({
    method: 'get',
    path: '/stocktakes',
    summary: 'Stocktakes with their progress',
    permission: 'look',
    answer: listOf(stocktakeRow),
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
    summary: 'A stocktake: what was found, what was not, what stands wrong',
    permission: 'look',
    answer: stocktakeDetail,
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
    answer: scanAnswer,
  }),
  load: endpoint({
    method: 'post',
    path: '/stocktakes/:id/load',
    summary: 'Load the codes of a scanner’s file',
    permission: 'scan',
    body: codesBody,
    answer: doneSchema,
  }),
  loadFile: endpoint({
    method: 'post',
    path: '/stocktakes/:id/load-file',
    summary: 'Load a scanner’s file of any length; the body is the file, `name` its name',
    permission: 'scan',
    query: object({ name: line(200) }),
    body: 'file',
    status: 202,
    answer: jobStateSchema,
  }),
  reviewSettle: endpoint({
    method: 'post',
    path: '/stocktakes/:id/settle/review',
    summary: 'What settling these findings would do',
    permission: 'edit copies',
    body: settleBody,
    answer: reviewSchema,
  }),
  settle: endpoint({
    method: 'post',
    path: '/stocktakes/:id/settle',
    summary: 'Settle findings',
    permission: 'edit copies',
    body: settleBody,
    answer: doneSchema,
  }),
  close: endpoint({
    method: 'post',
    path: '/stocktakes/:id/close',
    summary: 'Close a stocktake',
    permission: manage,
    answer: doneSchema,
  }),
};
