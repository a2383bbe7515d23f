import { LOCAL_FORMS, type LocalForm } from '@osier/core/holdings';
import { array, mixed, object, type InferType } from 'yup';
import { listOf, orNull, shape, text, whole, wordOf } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { code, line, version } from '../inputs';
import { doneSchema, madeSchema } from '../objects/acts';
import { versionBody } from './setup';

const fieldShape = {
  name: line(40).trim().required('Give the field a name.'),
  form: mixed<LocalForm>()
    .oneOf([...LOCAL_FORMS], 'Choose what it holds.')
    .required('Choose what it holds.'),
  choices: array(line(50).trim().required()).max(100, 'At most 100 choices.').default([]),
  types: array(code().required()).max(100).default([]),
};
/** What a local field of copies is. */
export const localFieldSchema = object(fieldShape);
/** A new local field. */
export const localFieldBody = object({ field: object(fieldShape).required() });
export type LocalFieldBody = InferType<typeof localFieldBody>;

const localFieldRow = shape({
  id: whole(),
  version: whole(),
  field: shape({
    name: text(),
    form: wordOf(LOCAL_FORMS),
    choices: listOf(text()),
    types: listOf(text()),
  }),
  /** So many copies have something in it; null where that was not asked for, because every value is counted. */
  values: orNull(whole()),
});
/** A local field as it is kept. */
export type LocalFieldRow = ValueOf<typeof localFieldRow>;

const permission = 'set up' as const;
/** The fields that the library has added to its copies. */
export const localFieldApi = {
  list: endpoint({
    method: 'get',
    path: '/local-fields',
    summary: 'The local fields of copies; `counted` with how many copies have something in each',
    permission: 'look',
    query: object({ counted: mixed<'yes'>().oneOf(['yes'], 'Write yes, or leave it out.').optional() }),
    answer: listOf(localFieldRow),
  }),
  keep: endpoint({
    method: 'post',
    path: '/local-fields',
    summary: 'Make a local field',
    permission,
    body: localFieldBody,
    status: 201,
    answer: madeSchema,
  }),
  change: endpoint({
    method: 'put',
    path: '/local-fields/:id',
    summary: 'Change a local field; what it holds stays while copies have something in it',
    permission,
    body: object({ version: version(), field: object(fieldShape).required() }),
    answer: doneSchema,
    problems: [404],
  }),
  remove: endpoint({
    method: 'post',
    path: '/local-fields/:id/remove',
    summary: 'Delete a local field: what copies have in it goes with it, and comes back when that is undone',
    permission,
    body: versionBody,
    answer: doneSchema,
    problems: [404],
  }),
};
