import { SCHEMES, type Scheme } from '@osier/core/callnumbers';
import { LAST_COPY, type LastCopy } from '@osier/core/house';
import { WEED_USES, type WeedUse } from '@osier/core/withdrawals';
import { array, boolean, mixed, object, type InferType } from 'yup';
import { code, id, line, version } from '../inputs';
import { isoDay, number, string } from '../values';
import { copySearchBody } from './copy-lists';
import { page, reviewed } from './reviews';

/** A new withdrawal list. */
export const withdrawalListBody = object({
  name: line().required('Give the list a name.'),
  branch: code().required('Choose a branch.'),
  reason: line().default(''),
  /** The person who is to confirm it; 0 for anybody who may. */
  confirmer: number().integer().min(0).default(0),
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
/** Which shelf is weeded: a branch, a location of it ('' for all), call numbers from and to; and by what the use of its copies is known. */
const weedPlace = {
  branch: code().required('Choose a branch.'),
  location: code().default(''),
  scheme: mixed<Scheme>()
    .oneOf([...SCHEMES])
    .default('dewey'),
  from: line(60).default(''),
  to: line(60).default(''),
  use: mixed<WeedUse>()
    .oneOf([...WEED_USES])
    .default('seen'),
};
/** The copies of a shelf, to see which might go. */
export const weedQuery = object(weedPlace);
export type WeedQuery = InferType<typeof weedQuery>;
const year = () => number().integer().min(1000).max(2999).nullable().default(null);
/** The same with what makes a copy of it a candidate for withdrawal. */
export const weedBody = object({
  ...weedPlace,
  publishedBefore: year(),
  usedBefore: year(),
  spareOnly: boolean().default(false),
});
export type WeedBody = InferType<typeof weedBody>;
/** Copies of a search that go on a list at once. */
export const MOST_FOUND_FOR_A_LIST = 5000;
/** What is added to a list: the copies of a pile or of a search, those that a stocktake misses, or candidates of a shelf. */
export const fillListBody = object({
  pile: id().optional(),
  found: copySearchBody.optional().default(undefined),
  stocktake: id().optional(),
  weed: weedBody.optional().default(undefined),
}).test(
  'one',
  'Choose a pile, a search, a stocktake, or a shelf.',
  ({ pile, found, stocktake, weed }) =>
    [pile, found, stocktake, weed].filter((one) => one !== undefined).length === 1,
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
