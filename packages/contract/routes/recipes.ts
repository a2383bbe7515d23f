import type { Step } from '@osier/core/recipes';
import { array, mixed, object, type InferType } from 'yup';
import { objectOf, listOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { id, line, version } from '../inputs';
import { doneSchema, madeSchema } from '../objects/acts';
import { string } from '../values';
import { versionBody } from './setup';

/** A recipe as it is kept; what each step may be is core's to say. */
export const recipeBody = object({
  name: line(120).required('Give the recipe a name.'),
  steps: array(mixed<{ step: string }>().required())
    .min(1, 'A recipe has at least one step.')
    .max(200)
    .required(),
});
export type RecipeBody = InferType<typeof recipeBody>;
/** Steps that are tried on the waiting records of a delivery, and the incoming record that they were done to. */
export const stepsBody = recipeBody.pick(['steps']).shape({ besides: id().optional() });
export type StepsBody = InferType<typeof stepsBody>;
/** A recipe that is changed. */
export const recipeChangeBody = recipeBody.shape({ version: version() });
/** A recipe file of another library, as text. */
export const recipeFileBody = object({ text: string().max(500_000).required() });

const recipeRow = shape({
  id: text(),
  name: text(),
  /** Null for the one that comes with Osier. */
  version: orNull(whole()),
  steps: listOf(shape({ sentence: text(), step: objectOf<Step>('A step of a recipe.') })),
});
/** A recipe with its steps as sentences. */
export type RecipeRow = ValueOf<typeof recipeRow>;

const permission = 'take in deliveries' as const;
/** Recipes. */
export const recipeApi = {
  list: endpoint({
    method: 'get',
    path: '/recipes',
    summary: 'The recipes and their steps',
    permission: 'look',
    answer: listOf(recipeRow),
  }),
  keep: endpoint({
    method: 'post',
    path: '/recipes',
    summary: 'Save a recipe',
    permission,
    body: recipeBody,
    answer: madeSchema,
  }),
  import: endpoint({
    method: 'post',
    path: '/recipes/import',
    summary: 'Take over a recipe from a file of another library',
    permission,
    body: recipeFileBody,
    answer: madeSchema,
  }),
  change: endpoint({
    method: 'put',
    path: '/recipes/:id',
    summary: 'Change a recipe',
    permission,
    body: recipeChangeBody,
    answer: doneSchema,
  }),
  remove: endpoint({
    method: 'post',
    path: '/recipes/:id/remove',
    summary: 'Delete a recipe',
    permission,
    body: versionBody,
    answer: doneSchema,
  }),
  file: endpoint({
    method: 'get',
    path: '/recipes/:name/file',
    summary: 'A recipe as a file',
    permission: 'look',
    params: { name: string().required() },
    answer: { media: ['application/json'] },
  }),
};
