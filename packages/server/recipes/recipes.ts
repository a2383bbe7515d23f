import { recipeBody, type RecipeBody, type RecipeRow } from '@osier/contract';
import { validated } from '../http/validated';
import { creation, removal, update } from '@osier/core/changes';
import type { StoredObject } from '@osier/core/kinds';
import {
  BUILT_IN,
  readRecipe,
  recipeProblems,
  stepSentence,
  stepsNow,
  type Recipe,
  type Step,
} from '@osier/core/recipes';
import { quoted, type Act } from '@osier/core/acts';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';

/** Why a kept recipe cannot be run now, as a sentence; null when it can. What it was written for may have changed since. */
export function whyNotRun(recipe: Recipe): string | null {
  const [problem] = recipeProblems(recipe);
  return problem
    ? `The recipe ${quoted(recipe.name)} cannot be run. Step ${problem.step + 1}: ${problem.message}`
    : null;
}

/** The recipe with this id: the one that comes with Osier, or one of the library's own by its number. */
export async function recipeNamed(store: Store, id: string): Promise<Recipe> {
  const recipe = await recipeIfThere(store, id);
  if (!recipe) throw wrong('recipe', `There is no recipe “${id}”.`);
  return recipe;
}

/** The recipe with this id, or null when it was taken away since. */
export async function recipeIfThere(store: Store, id: string): Promise<Recipe | null> {
  const built = BUILT_IN.find((r) => r.id === id);
  const kept = !built && /^\d{1,9}$/.test(id) ? await store.read('recipe', Number(id)) : null;
  return built ?? (kept ? keptRecipe(kept) : null);
}

/** A recipe of the library's own, with its checks by the names that they have now. */
const keptRecipe = ({ id, value }: StoredObject<'recipe'>): Recipe => ({
  id: String(id),
  ...value,
  steps: stepsNow(value.steps),
});

/** All recipes, the one that comes with Osier first, then by name. */
export async function listRecipes({ store }: Services): Promise<RecipeRow[]> {
  const house = (await store.house()).value;
  const kept = await store.find('recipe', {
    order: [
      ['name', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  const row = (r: Recipe, version: number | null): RecipeRow => ({
    id: r.id,
    name: r.name,
    version,
    steps: r.steps.map((step) => ({ step, sentence: stepSentence(step, house) })),
  });
  return [...BUILT_IN.map((r) => row(r, null)), ...kept.map((k) => row(keptRecipe(k), k.version))];
}

/** Checks a recipe and gives it as a value; the first thing that is wrong is told. */
export function sound({ name, steps }: RecipeBody): Omit<Recipe, 'id'> {
  const recipe = { name: name.trim(), steps: steps as unknown as Step[] };
  let problems: { step: number; message: string }[];
  try {
    problems = recipeProblems({ id: '', ...recipe });
    for (const step of recipe.steps) stepSentence(step, NO_HOUSE);
  } catch {
    throw wrong('steps', 'A step of the recipe is not as it should be.');
  }
  const [problem] = problems;
  if (problem) throw wrong('steps', `Step ${problem.step + 1}: ${problem.message}`);
  return recipe;
}
const NO_HOUSE = { classDecimals: 0 } as Parameters<typeof stepSentence>[1];

/** Keeps a new recipe. */
export async function keepRecipe(
  { store }: Services,
  person: number,
  body: RecipeBody,
): Promise<{ id: number; entry: number; sentence: string }> {
  const recipe = sound(body);
  return commitPlan(store, person, async (s) => {
    const id = await s.nextIds('recipe', 1);
    return { did: recipeAct('kept', recipe), id, changes: [creation('recipe', id, recipe)] };
  });
}

/** Keeps the recipe of a file, held to the same limits as one that is typed. */
export async function importRecipe(services: Services, person: number, text: string) {
  const recipe = readRecipe(text, '');
  if (typeof recipe === 'string') throw wrong('text', recipe);
  return keepRecipe(services, person, await validated(recipeBody, recipe));
}

/** Changes a recipe. */
export async function changeRecipe(
  { store }: Services,
  person: number,
  id: number,
  { version, ...body }: RecipeBody & { version: number },
): Promise<{ entry: number; sentence: string }> {
  const recipe = sound(body);
  return commitPlan(store, person, async (s) => {
    const held = await s.read('recipe', id);
    if (!held) throw notFound(`Recipe ${id}`);
    return { did: recipeAct('changed', recipe), changes: [update('recipe', { ...held, version }, recipe)] };
  });
}

/** Deletes a recipe that no supplier sheet runs. */
export const removeRecipe = (
  { store }: Services,
  person: number,
  id: number,
  version: number,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const held = await s.read('recipe', id);
    if (!held) throw notFound(`Recipe ${id}`);
    const user = (await s.find('sheet')).find((x) => x.value.recipe === String(id));
    if (user) throw wrong('recipe', `The supplier sheet ${quoted(user.value.name)} runs this recipe.`);
    return { did: recipeAct('deleted', held.value), changes: [removal('recipe', { ...held, version })] };
  });

const recipeAct = (how: 'kept' | 'changed' | 'deleted', { name, steps }: Omit<Recipe, 'id'>): Act => ({
  act: 'recipe',
  names: { recipe: name },
  counts: { steps: steps.length },
  how,
});
