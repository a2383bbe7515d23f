import { addressProblem, LOOKED_BY, NEW_NEIGHBOUR, PROTOCOLS, SRU_VERSIONS } from '@osier/core/neighbours';
import type { LookedBy, Protocol, SruVersion } from '@osier/core/neighbours';
import { array, boolean, mixed, object, type InferType } from 'yup';
import { flag, listOf, orNull, shape, text, whole, wordOf } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { id, line, version } from '../inputs';
import { doneSchema, madeSchema } from '../objects/acts';
import { marcSchema } from '../objects/marc';
import { marcBody, withErrors } from '../objects/sent-record';
import { number } from '../values';
import { copyRowBody } from './copies';
import { alikeRow } from './record-desk';
import { versionBody } from './setup';

const byEach = <T>(made: () => T) =>
  Object.fromEntries(LOOKED_BY.map((by) => [by, made()])) as Record<LookedBy, T>;
const index = () =>
  line(80)
    .trim()
    .matches(/^[^\s"()=<>/\\]*$/, 'The name of an index has no blanks and none of " ( ) = < > / \\.')
    .default('');
const from1to = (most: number, message: string) =>
  number().integer(message).min(1, message).max(most, message).required(message);

const neighbourShape = {
  name: line(80).trim().required('Give the neighbour a name.'),
  protocol: mixed<Protocol>()
    .oneOf([...PROTOCOLS])
    .default('sru'),
  address: line(500)
    .trim()
    .required('Type its address.')
    .when('protocol', (values: unknown[], schema) => {
      const of = values[0] === 'z39.50' ? 'z39.50' : 'sru';
      return schema.test('address', function (value = '') {
        const problem = addressProblem(value, of);
        return problem === null || this.createError({ message: problem });
      });
    }),
  database: line(80).trim().default(''),
  version: mixed<SruVersion>()
    .oneOf([...SRU_VERSIONS])
    .default('1.2'),
  schema: line(120).trim().required('Type the record schema that is asked for, such as marcxml.'),
  indexes: object(byEach(index)),
  order: from1to(999, 'Its place among the others is from 1 to 999.'),
  seconds: from1to(60, 'It is waited for from 1 to 60 seconds.'),
  most: from1to(50, 'From 1 to 50 records are asked for.'),
  trust: from1to(5, 'Trust is from 1 to 5.').default(NEW_NEIGHBOUR.trust),
  materials: array(line(40).required()).max(20).default([]),
  recipe: line(40).default(''),
  user: line(80).trim().default(''),
  isUsed: boolean().default(true),
};
/** What a neighbour is, as it is typed. */
export const neighbourSchema = object(neighbourShape);
/** A password that is typed; null for the one that is kept. */
const password = () => line(200).nullable().default(null);
const neighbourBody = object({ neighbour: object(neighbourShape).required(), password: password() });
export type NeighbourBody = InferType<typeof neighbourBody>;

const neighbourValue = {
  name: text(),
  protocol: wordOf(PROTOCOLS),
  address: text(),
  database: text(),
  version: wordOf(SRU_VERSIONS),
  schema: text(),
  indexes: shape(byEach(text)),
  order: whole(),
  seconds: whole(),
  most: whole(),
  trust: whole(),
  materials: listOf(text()),
  recipe: text(),
  user: text(),
  isUsed: flag(),
};
const neighbourRow = shape({
  id: whole(),
  version: whole(),
  neighbour: shape(neighbourValue),
  hasPassword: flag(),
  /** It does not answer and is left out for a while. */
  out: orNull(shape({ since: text(), until: text(), why: text() })),
});
/** A neighbour as it is kept, without its password. */
export type NeighbourRow = ValueOf<typeof neighbourRow>;

const foundRecord = shape({
  marc: marcSchema,
  left: listOf(text()),
  changed: text(),
  told: listOf(text()),
  errors: whole(),
  warnings: whole(),
  advice: whole(),
});
const neighbourAnswer = shape({
  /** `stopped`: nobody waited for it. */
  state: wordOf(['found', 'none', 'failed', 'left out', 'stopped']),
  /** What is told of it, as a sentence; '' for nothing. */
  message: text(),
  /** What was put right in its answer, as sentences. */
  told: listOf(text()),
  /** How many records it has, of which the first ones are here. */
  count: whole(),
  milliseconds: whole(),
  records: listOf(foundRecord),
});
/** What a neighbour has of what is looked for. */
export type NeighbourAnswer = ValueOf<typeof neighbourAnswer>;
export type NeighbourRecord = NeighbourAnswer['records'][number];

const lookup = shape({
  /** What is looked for, in words; '' where it is nothing that can be. */
  sought: text(),
  problem: orNull(text()),
  own: listOf(alikeRow),
  /** The neighbours that are asked, round by round: those of one together. */
  ask: listOf(listOf(whole())),
});
/** What an input looks for, what the catalogue has of it, and whom to ask. */
export type NeighbourLookup = ValueOf<typeof lookup>;

const trial = shape({
  message: text(),
  isGood: flag(),
  explained: orNull(
    shape({
      title: text(),
      indexes: listOf(text()),
      schemas: listOf(text()),
      most: orNull(whole()),
      suggested: shape(byEach(text)),
    }),
  ),
  told: listOf(text()),
  titles: listOf(text()),
  count: whole(),
  milliseconds: whole(),
});
/** What trying a neighbour showed. */
export type NeighbourTrial = ValueOf<typeof trial>;

const copyRecordBody = object({
  neighbour: id().required(),
  marc: marcBody.required(),
  withErrors: withErrors(),
  despite: array(id().required()).max(100).default([]),
  /** The copies that come with it; none for the record alone. */
  rows: array(copyRowBody).max(500, 'At most 500 copies are added at once.').default([]),
  roll: id().nullable().default(null),
  keepBarcodes: boolean().default(false),
});
export type CopyRecordBody = InferType<typeof copyRecordBody>;

const take = 'take in deliveries' as const;
const permission = 'set up' as const;
/** Neighbours: libraries whose records are copied. */
export const neighbourApi = {
  list: endpoint({
    method: 'get',
    path: '/neighbours',
    summary: 'The neighbours in the order in which they are asked',
    permission: 'look',
    answer: listOf(neighbourRow),
  }),
  keep: endpoint({
    method: 'post',
    path: '/neighbours',
    summary: 'Add a neighbour',
    permission,
    body: neighbourBody,
    answer: madeSchema,
  }),
  tryOut: endpoint({
    method: 'post',
    path: '/neighbours/try',
    summary: 'Try a neighbour as it is typed: what it says of itself, and what a search finds',
    permission,
    /** `of`: the neighbour whose password is used where none is typed. */
    body: neighbourBody.shape({ of: id().nullable().default(null), text: line(500).trim().default('') }),
    answer: trial,
  }),
  lookup: endpoint({
    method: 'get',
    path: '/neighbours/lookup',
    summary: 'What an input looks for, what the catalogue has of it already, and which neighbours to ask',
    permission: take,
    query: object({ text: line(500) }),
    answer: lookup,
  }),
  prepare: endpoint({
    method: 'post',
    path: '/neighbours/prepare',
    summary:
      'A record as it would be saved here: kept forms for see-froms, and what of the catalogue it may be',
    permission: take,
    body: object({ marc: marcBody.required() }),
    answer: shape({ marc: marcSchema, notes: listOf(text()), alike: listOf(alikeRow) }),
  }),
  copy: endpoint({
    method: 'post',
    path: '/neighbours/copy',
    summary:
      'Add a neighbour’s record with its copies, as one entry; 409 when records look like it that `despite` does not name',
    permission: take,
    body: copyRecordBody,
    status: 201,
    answer: madeSchema,
    problems: [404],
  }),
  change: endpoint({
    method: 'put',
    path: '/neighbours/:id',
    summary: 'Change a neighbour',
    permission,
    body: neighbourBody.shape({ version: version() }),
    answer: madeSchema,
  }),
  remove: endpoint({
    method: 'post',
    path: '/neighbours/:id/remove',
    summary: 'Delete a neighbour',
    permission,
    body: versionBody,
    answer: doneSchema,
  }),
  find: endpoint({
    method: 'get',
    path: '/neighbours/:id/find',
    summary: 'Look for something at one neighbour; `anyway` asks one that is left out for a while',
    permission: take,
    query: object({ text: line(500), anyway: line(1) }),
    answer: neighbourAnswer,
    problems: [404],
  }),
  cover: endpoint({
    method: 'get',
    path: '/neighbours/:id/cover',
    summary: 'The cover that a record of a neighbour links to (856 $3 Cover); 404 where there is no picture',
    permission: take,
    query: object({ address: line(2000).required() }),
    answer: { media: ['image/png', 'image/jpeg', 'image/gif', 'image/webp'] },
    problems: [404],
  }),
};
