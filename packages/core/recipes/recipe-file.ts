import { ruleNow } from '../checks';
import { recipeProblems } from './problems';
import type { Recipe, Step } from './step';

const KIND = 'osier-recipe';

/** A recipe as a file that another library can read: JSON, with what it is and which form it has. */
export const recipeFile = (recipe: Recipe): string =>
  `${JSON.stringify({ kind: KIND, form: 1, name: recipe.name, steps: recipe.steps }, null, 2)}\n`;

/** Steps as they are written now: a check may have had another name when they were kept. */
export const stepsNow = (steps: readonly Step[]): readonly Step[] =>
  steps.map((s) =>
    s.step === 'apply-fixes' && typeof s.rule === 'string' ? { ...s, rule: ruleNow(s.rule) } : s,
  );

/** Reads a recipe from a file; a file that is none, or a step that cannot run, gives a sentence. */
export function readRecipe(text: string, id: string): Recipe | string {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return 'This file is not JSON; a recipe file is.';
  }
  const { kind, form, name, steps } = (value ?? {}) as Record<string, unknown>;
  if (kind !== KIND) return 'This is JSON, but not a recipe.';
  if (form !== 1) return `This recipe has the form ${String(form)}; form 1 can be read here.`;
  if (typeof name !== 'string' || !Array.isArray(steps)) return 'The recipe has no name or no steps.';
  const recipe: Recipe = { id, name, steps: stepsNow(steps as Step[]) };
  try {
    const [problem] = recipeProblems(recipe);
    return problem ? `Step ${problem.step + 1}: ${problem.message}` : recipe;
  } catch {
    return 'A step of the recipe is not as it should be.';
  }
}
