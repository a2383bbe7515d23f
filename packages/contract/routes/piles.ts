import type { PiledKind } from '@osier/core/piles';
import { array, mixed, object, type InferType } from 'yup';
import { listOf, wordOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { id, line, version } from '../inputs';
import { doneSchema, jobStateSchema, madeSchema } from '../objects/acts';
import { string } from '../values';
import { searchShape } from './catalogue';
import { copySearchBody } from './copy-lists';
import { versionBody } from './setup';

const pileName = () => line(80).trim().required('Give the pile a name.');
const piledKind = () =>
  mixed<PiledKind>()
    .oneOf(['record', 'copy'], 'A pile is of records or of copies.')
    .required('A pile is of records or of copies.');
/** A new pile. */
export const pileBody = object({ name: pileName(), of: piledKind(), note: line(500).default('') });
export type PileBody = InferType<typeof pileBody>;
/** Another name and note of a pile. */
export const pileChangeBody = object({ version: version(), name: pileName(), note: line(500).default('') });
export type PileChangeBody = InferType<typeof pileChangeBody>;
/** What a search finds, to be put on a pile: one that is there, or a new one by its name. */
export const fillPileBody = object({
  into: id().nullable().default(null),
  name: line(80).trim().default(''),
  of: piledKind().default('record'),
  ...searchShape,
  /** The copies of a list of copies, or their titles, instead of what a search of the catalogue finds. */
  copies: copySearchBody.optional().default(undefined),
});
export type FillPileBody = InferType<typeof fillPileBody>;
/** Numbers of the records or copies that are taken off a pile. */
export const takeOffBody = object({
  objects: array(id().required()).min(1, 'Choose what to remove.').max(5000).required(),
});
/** Scans that are put on a pile: barcodes, or for records also ISBNs and record numbers. */
export const pileScansBody = object({
  codes: array(string().max(60).required())
    .min(1, 'Scan something.')
    .max(5000, 'At most 5,000 scans at once.')
    .required(),
});

const rowParts = {
  id: whole(),
  version: whole(),
  name: text(),
  of: wordOf(['record', 'copy']),
  note: text(),
  by: text(),
  madeOn: text(),
  /** How many records or copies lie on it. */
  count: whole(),
};
const pileRow = shape(rowParts);
/** A pile with how much lies on it. */
export type PileRow = ValueOf<typeof pileRow>;
const piledRow = shape({
  /** Number of the record or copy. */
  object: whole(),
  record: whole(),
  title: text(),
  author: text(),
  year: text(),
  callNumber: text(),
  /** Of a copy; empty for a record. */
  barcode: text(),
  place: text(),
  status: text(),
});
/** One record or copy on a pile. */
export type PiledRow = ValueOf<typeof piledRow>;
const pileDetail = shape({
  ...rowParts,
  rows: listOf(piledRow),
  next: orNull(text()),
  /** How many of them are not in the catalogue any more. */
  gone: whole(),
});
/** A pile with a page of what lies on it. */
export type PileDetail = ValueOf<typeof pileDetail>;
const pileScans = shape({
  /** Null when nothing was new. */
  entry: orNull(whole()),
  sentence: text(),
  added: whole(),
  repeated: whole(),
  unknown: listOf(shape({ code: text(), message: text() })),
});
/** What scanning onto a pile did. */
export type PileScans = ValueOf<typeof pileScans>;

const permission = 'keep piles' as const;
/** Piles. */
export const pileApi = {
  list: endpoint({
    method: 'get',
    path: '/piles',
    summary: 'The piles, newest first',
    permission: 'look',
    answer: listOf(pileRow),
  }),
  make: endpoint({
    method: 'post',
    path: '/piles',
    summary: 'Start an empty pile of records or of copies',
    permission,
    body: pileBody,
    status: 201,
    answer: madeSchema,
  }),
  fill: endpoint({
    method: 'post',
    path: '/piles/fill',
    summary: 'Add all that a search finds to a pile',
    permission,
    body: fillPileBody,
    status: 202,
    answer: jobStateSchema,
    problems: [404],
  }),
  read: endpoint({
    method: 'get',
    path: '/piles/:id',
    summary: 'A pile with what is on it; `after` for the next page',
    permission: 'look',
    query: object({ after: line(1000) }),
    answer: pileDetail,
  }),
  change: endpoint({
    method: 'put',
    path: '/piles/:id',
    summary: 'Change name and note of a pile',
    permission,
    body: pileChangeBody,
    answer: doneSchema,
  }),
  scan: endpoint({
    method: 'post',
    path: '/piles/:id/scans',
    summary: 'Add what is scanned to a pile',
    permission,
    body: pileScansBody,
    answer: pileScans,
  }),
  takeOff: endpoint({
    method: 'post',
    path: '/piles/:id/take-off',
    summary: 'Remove records or copies from a pile',
    permission,
    body: takeOffBody,
    answer: doneSchema,
  }),
  remove: endpoint({
    method: 'post',
    path: '/piles/:id/remove',
    summary: 'Delete a pile; what is on it stays',
    permission,
    body: versionBody,
    answer: doneSchema,
  }),
};
