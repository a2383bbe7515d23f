import { SCHEMES, type Scheme } from '@osier/core/callnumbers';
import {
  COPY_STATUSES,
  EDIT_WAYS,
  EDITED_PARTS,
  type CopyStatus,
  type EditedPart,
  type EditWay,
} from '@osier/core/holdings';
import { array, mixed, object, type InferType } from 'yup';
import { flag, listOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { holdingsAs, id, line, wholeQuery } from '../inputs';
import { jobStateSchema, reviewSchema } from '../objects/acts';
import { copyStatus, localValueList } from '../objects/holdings';
import { isoDay, string } from '../values';
import { leaveOut, page, reviewed } from './reviews';

/** By what a list of copies can be sorted. */
export const COPY_ORDERS = ['shelf', 'barcode', 'acquired', 'seen', 'price', 'loans', 'lent'] as const;
export type CopyOrder = (typeof COPY_ORDERS)[number];

const yes = () => mixed<'yes'>().oneOf(['yes'], 'Write yes, or leave it out.').optional();
/** Which copies: all of what is given holds for each. Days are inclusive. */
const placeOfCopies = {
  /** Words of the title, or a query in CQL: what it asks of copies is asked of each by itself. */
  q: line(500).trim().default(''),
  /** A part of the barcode. */
  barcode: line(40).trim().default(''),
  branch: line(60).default(''),
  location: line(60).default(''),
  type: line(60).default(''),
  status: mixed<CopyStatus>()
    .oneOf([...COPY_STATUSES], 'There is no such status.')
    .optional(),
  fund: line(60).default(''),
  supplier: line(60).default(''),
  /** Call numbers from and to, and all that begins with the last, as one line in a scheme. */
  numberFrom: line(80).trim().default(''),
  numberTo: line(80).trim().default(''),
  scheme: mixed<Scheme>()
    .oneOf([...SCHEMES])
    .default('dewey'),
  acquiredFrom: isoDay().default(''),
  acquiredTo: isoDay().default(''),
  /** Not seen in a stocktake or scanned on this day or later. */
  notSeenSince: isoDay().default(''),
  /** Lent on no day since this one, as the loans desk counted; copies of which it counted nothing are not meant. */
  notLentSince: isoDay().default(''),
  noPrice: yes(),
  /** Whose call number its scheme cannot read. */
  unread: yes(),
  /** A part of what they have in the local field that `local` names (a choice or number whole); empty for anything. */
  localValue: line(100).trim().default(''),
};
/** Copies looked for, by what is known of them. */
export const copySearchShape = {
  ...placeOfCopies,
  pile: id().optional(),
  /** The number of a local field in which they have something. */
  local: id().optional(),
  /** Only these, chosen by hand. */
  copies: array(id().required()).max(5000, 'At most 5,000 copies are chosen by hand.').optional(),
};
/** A search for copies. */
export const copySearchBody = object(copySearchShape);
export type CopySearch = InferType<typeof copySearchBody>;

/** A search for holdings: what a query asks of holdings and copies is asked of each holding and of its copies. */
export const holdingSearchBody = object({
  q: line(500).trim().default(''),
  branch: line(60).default(''),
  location: line(60).default(''),
});
export type HoldingSearch = InferType<typeof holdingSearchBody>;

/** What is changed in each copy, as it is sent and as a job keeps it. */
export const copyEdits = () =>
  array(
    object({
      part: mixed<EditedPart>()
        .oneOf([...EDITED_PARTS])
        .required(),
      /** The number of the local field that is changed. */
      field: id().optional(),
      how: mixed<EditWay>()
        .oneOf([...EDIT_WAYS])
        .required(),
      value: line(500).default(''),
      find: line(200).default(''),
    }),
  );

/** Changes to all copies that are found. */
export const changeCopiesBody = object({
  ...copySearchShape,
  edits: copyEdits().min(1, 'Say what is changed.').max(20).required(),
  leaveOut: leaveOut(),
  token: reviewed(),
});
export type ChangeCopiesBody = InferType<typeof changeCopiesBody>;

const copyListRow = shape({
  id: whole(),
  record: whole(),
  title: text(),
  author: text(),
  callNumber: text(),
  /** Its scheme cannot read it. */
  isUnread: flag(),
  branch: text(),
  location: text(),
  barcode: text(),
  part: text(),
  number: whole(),
  type: text(),
  status: copyStatus(),
  price: orNull(whole()),
  /** Of its price (ISO 4217); '' for the library's own. */
  currency: text(),
  fund: text(),
  supplier: text(),
  acquired: text(),
  lastSeen: text(),
  loans: orNull(whole()),
  lastLoan: text(),
  local: localValueList(),
});
/** A copy as a list shows it. */
export type CopyListRow = ValueOf<typeof copyListRow>;
const copyList = shape({
  total: whole(),
  /** There are more than the server counts. */
  isMore: flag(),
  rows: listOf(copyListRow),
  next: orNull(text()),
});
/** A page of copies. */
export type CopyList = ValueOf<typeof copyList>;

const holdingListRow = shape({
  id: whole(),
  record: whole(),
  title: text(),
  author: text(),
  callNumber: text(),
  /** Its scheme cannot read it. */
  isUnread: flag(),
  branch: text(),
  location: text(),
  copies: whole(),
});
/** A holding as a list shows it. */
export type HoldingListRow = ValueOf<typeof holdingListRow>;
const holdingList = shape({
  total: whole(),
  /** There are more than the server counts. */
  isMore: flag(),
  rows: listOf(holdingListRow),
  next: orNull(text()),
});
/** A page of holdings. */
export type HoldingList = ValueOf<typeof holdingList>;

const countedValues = () => listOf(shape({ value: text(), n: whole() }));
const copyCharts = shape({
  total: whole(),
  /** By the first two digits of a Dewey number, or the letters before a number; `~` where no scheme can read it. */
  classes: countedValues(),
  /** By the first three digits of the year of publication; '' where none is known. */
  decades: countedValues(),
  statuses: countedValues(),
});
/** How copies are spread. */
export type CopyCharts = ValueOf<typeof copyCharts>;

const inQuery = { ...placeOfCopies, pile: wholeQuery(), local: wholeQuery() };

/** Lists of copies, and what is done with all that one finds. */
export const copyListApi = {
  list: endpoint({
    method: 'get',
    path: '/copies',
    summary: 'Copies by what is known of them, in the order of the shelf or another',
    permission: 'look',
    query: object({
      ...inQuery,
      sort: mixed<CopyOrder>()
        .oneOf([...COPY_ORDERS], 'Copies are not sorted by that.')
        .default('shelf'),
      down: yes(),
      after: string().max(1000).optional(),
    }),
    answer: copyList,
  }),
  holdings: endpoint({
    method: 'get',
    path: '/holdings',
    summary: 'Holdings by words or a query in CQL, in the order of the shelf',
    permission: 'look',
    query: holdingSearchBody.shape({ after: string().max(1000).optional() }),
    answer: holdingList,
  }),
  charts: endpoint({
    method: 'get',
    path: '/copies/charts',
    summary: 'How the copies found are spread over classes, years of publication and statuses',
    permission: 'look',
    query: object(inQuery),
    answer: copyCharts,
  }),
  file: endpoint({
    method: 'get',
    path: '/copies/export',
    summary:
      'The copies found as a table (`as` csv), or their records (iso2709, marcxml) with holdings in them (852, 876), apart (853, 863, 866), or none',
    permission: 'look',
    query: object({
      ...inQuery,
      as: line(20).default('csv'),
      holdings: holdingsAs(),
    }),
    answer: { media: ['text/csv', 'application/marc', 'application/marcxml+xml'] },
  }),
  reviewChange: endpoint({
    method: 'post',
    path: '/copies/change/review',
    summary: 'What a change to all copies found would do',
    permission: 'edit copies',
    body: changeCopiesBody.shape(page),
    answer: reviewSchema,
  }),
  change: endpoint({
    method: 'post',
    path: '/copies/change',
    summary: 'Change all copies that are found',
    permission: 'edit copies',
    body: changeCopiesBody,
    status: 202,
    answer: jobStateSchema,
  }),
};
