import { SCHEMES, type Scheme } from '@osier/core/callnumbers';
import {
  FINDING_KINDS,
  SETTLEMENTS,
  SHELF_ORDERS,
  type Settlement,
  type ShelfOrder,
  type StockFindingKind,
} from '@osier/core/stocktake';
import { array, mixed, object, type InferType } from 'yup';
import { code, id, line } from '../inputs';
import { isoDay, number, string } from '../values';
import { leaveOut, reviewed } from './reviews';

/** Longest code that may be scanned. */
const LONGEST = 60;

/** Scans of a stocktake; with where they come from, they may be sent again. */
export const scanBody = object({
  codes: array(string().max(LONGEST).required())
    .max(5000, 'At most 5,000 scans at once. Load more as a file.')
    .required(),
  /** When each was scanned (ISO date and time); none: now. */
  times: array(string().max(30).required()).max(5000).optional().default(undefined),
  from: object({
    /** Names the device, and its run: a walk from one start of the page to its end. */
    device: string().max(60).required(),
    run: string().max(60).required(),
    /** Of the first code, counted within the run. */
    number: number().integer().min(0).required(),
    /** Code of the location that is walked; '' for all of the stretch. */
    location: code().default(''),
  })
    .optional()
    .default(undefined),
});
/** Scans of a stocktake as they are sent. */
export type ScanBody = InferType<typeof scanBody>;

/** The walk whose last scan is taken back. */
export const lastScanBody = object({
  device: string().max(60).required(),
  run: string().max(60).required(),
});

/** Codes of a hand scanner: the day of the walk, and the location that was walked. */
export const scanListBody = object({
  codes: array(string().max(LONGEST).required())
    .max(5000, 'At most 5,000 scans at once. Load more as a file.')
    .required(),
  name: line().default(''),
  on: isoDay().default(''),
  location: code().default(''),
  /** It is loaded although the same scans are there already. */
  again: mixed<boolean>().default(false),
});

/** When a walk is told that it may have passed a shelf. */
export const JUMP_ALARMS = ['never', 'class', 'copies'] as const;

/** What a stocktake covers. */
export const stretchBody = object({
  branch: code().required('Choose a branch.'),
  /** Further branches. */
  also: array(code().required()).default([]),
  locations: array(code().required()).default([]),
  types: array(code().required()).default([]),
  /** Statuses whose copies are left out. */
  leftOut: array(line(30).required()).default([]),
  scheme: mixed<Scheme>()
    .oneOf([...SCHEMES])
    .default('dewey'),
  from: line(60).default(''),
  to: line(60).default(''),
  seenSince: isoDay().default(''),
});
export type StretchBody = InferType<typeof stretchBody>;

/** A stretch that is looked at before its stocktake is started. */
export const stretchReviewBody = stretchBody.shape({
  /** Whether the loans desk is asked which of its copies are on loan. */
  askLoans: mixed<boolean>().default(false),
});
export type StretchReviewBody = InferType<typeof stretchReviewBody>;

/** A new stocktake. */
export const stocktakeBody = stretchBody.shape({
  name: line().required('Give the stocktake a name.'),
  order: mixed<ShelfOrder>()
    .oneOf([...SHELF_ORDERS])
    .default('call'),
  /** Locations whose shelves are held in another order. */
  orders: array(
    object({
      location: code().required(),
      order: mixed<ShelfOrder>()
        .oneOf([...SHELF_ORDERS])
        .required(),
    }).required(),
  ).default([]),
  jumpWhen: mixed<(typeof JUMP_ALARMS)[number]>()
    .oneOf([...JUMP_ALARMS])
    .default('copies'),
  jumpBy: number().min(0.1, 'More than nought.').max(10_000).default(20),
  scanners: array(id().required()).default([]),
});
export type StocktakeBody = InferType<typeof stocktakeBody>;

const settlement = () => mixed<Settlement>().oneOf([...SETTLEMENTS]);
const finding = () => mixed<StockFindingKind>().oneOf([...FINDING_KINDS]);
/** Findings that are settled, and where a copy belongs from now on. */
export const settleBody = object({
  items: array(
    object({
      finding: finding().required(),
      /** Barcode, or the code that was scanned. */
      code: string().max(LONGEST).required(),
      act: settlement().required(),
    }).required(),
  )
    .max(20_000)
    .default([]),
  /** All findings of a kind that this settles, but those that are settled. */
  all: array(object({ finding: finding().required(), act: settlement().required() }).required())
    .max(8)
    .default([]),
  /** Where copies whose location is corrected belong from now on. */
  location: code().default(''),
  /** Rows of the review that are left out. */
  leaveOut: leaveOut(),
  token: reviewed(),
}).test('some', 'Choose findings to settle.', ({ items, all }) => items.length + all.length > 0);
export type SettleBody = InferType<typeof settleBody>;
