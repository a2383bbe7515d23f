import type { Starter } from '@osier/core/editing';
import { array, object, type InferType } from 'yup';
import { listOf, objectOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { line, version } from '../inputs';
import { doneSchema, madeSchema } from '../objects/acts';
import { string } from '../values';
import { versionBody } from './setup';

/** A starter as it is written: its fields as lines, `245 10 $a $b $c ! Title`. */
export const starterBody = object({
  name: line(60).trim().required('Give the starter a name.'),
  /** The key of the one that comes with Osier and that it stands for; '' for one of the library's own. */
  of: line(20).default(''),
  leader: string()
    .matches(/^[ -~]{24}$/, 'A leader has 24 characters.')
    .required('A leader has 24 characters.'),
  fixed: string().max(17, '008/18-34 has 17 characters.').default(''),
  physical: array(string().max(23).required()).max(10).default([]),
  lines: string().max(20_000).trim().required('List the fields, a line each.'),
});
export type StarterBody = InferType<typeof starterBody>;
/** A starter that is changed. */
export const starterChangeBody = starterBody.shape({ version: version() });

const starterRow = shape({
  /** By which a new record is begun: a word for one that comes with Osier, a number for one of the library's own. */
  key: text(),
  of: text(),
  /** Null for one as it comes with Osier. */
  version: orNull(whole()),
  starter: objectOf<Starter>('Name, leader, fixed positions and fields of a starter.'),
});
/** A starter. */
export type StarterRow = ValueOf<typeof starterRow>;

const permission = 'set up' as const;
/** Starters: prepared beginnings of records. */
export const starterApi = {
  list: endpoint({
    method: 'get',
    path: '/starters',
    summary: 'The starters, those of the library in place of those that they stand for',
    permission: 'look',
    answer: listOf(starterRow),
  }),
  keep: endpoint({
    method: 'post',
    path: '/starters',
    summary: 'Save a starter of the library',
    permission,
    body: starterBody,
    status: 201,
    answer: madeSchema,
  }),
  change: endpoint({
    method: 'put',
    path: '/starters/:id',
    summary: 'Change a starter of the library',
    permission,
    body: starterChangeBody,
    answer: doneSchema,
    problems: [404],
  }),
  remove: endpoint({
    method: 'post',
    path: '/starters/:id/remove',
    summary: 'Delete a starter of the library; the one that it stands for is used again',
    permission,
    body: versionBody,
    answer: doneSchema,
    problems: [404],
  }),
};
