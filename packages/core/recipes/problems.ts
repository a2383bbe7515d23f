import { CHECKS } from '../checks';
import { addressProblem } from './address-problem';
import { expressionOf } from './expression';
import type { Recipe, Step } from './step';
import type { StepPart } from './step-kind';
import { kindOf } from './step-of';

/** What is wrong with a recipe, by step from 0; -1 for the recipe itself. Empty when it can run. */
export function recipeProblems(recipe: Recipe): { step: number; message: string }[] {
  const problems: { step: number; message: string }[] = [];
  if (recipe.name.trim() === '') problems.push({ step: -1, message: 'Give the recipe a name.' });
  if (recipe.steps.length === 0) problems.push({ step: -1, message: 'A recipe has at least one step.' });
  recipe.steps.forEach((step, i) => {
    for (const message of stepProblems(step)) problems.push({ step: i, message });
  });
  return problems;
}

/** What is wrong with one step, as sentences. */
export function* stepProblems(step: Step): Iterable<string> {
  const kind = kindOf(step);
  if (!kind) {
    yield `There is no step “${step.step}”.`;
    return;
  }
  const values = new Map<string, unknown>(Object.entries(step));
  for (const part of kind.parts) {
    const value = values.get(part.key);
    if (part.optional && value === undefined) continue;
    yield* partProblem(part, value);
  }
  yield* kind.problems?.(step) ?? [];
  for (const written of [step.when?.has, step.when?.lacks])
    if (written !== undefined) yield* addressProblem(written);
}

/** What is wrong with what is filled in for one part. */
function* partProblem({ kind, wanted }: StepPart, value: unknown): Iterable<string> {
  const text = typeof value === 'string' ? value : '';
  if (kind === 'tags' && !/^[0-9A-Za-z.]{3}$/.test(text))
    yield `“${text}” names no tags: three characters, a point for any digit.`;
  if (kind === 'tag' && text !== 'LDR' && !/^[0-9A-Za-z]{3}$/.test(text)) yield `“${text}” is not a tag.`;
  if (kind === 'code' && !/^[a-z0-9]$/.test(text)) yield `“${text}” is not a subfield code.`;
  if (kind === 'match') yield* matchProblem(value);
  if (kind === 'check' && !CHECKS.some((c) => c.rule === text)) yield `There is no check “${text}”.`;
  if (wanted && text === '') yield 'Type the text.';
}

function* matchProblem(value: unknown): Iterable<string> {
  const { find, expression } = Object(value) as Record<string, unknown>;
  const problem = expressionOf({
    find: typeof find === 'string' ? find : '',
    expression: expression === true,
  });
  if (typeof problem === 'string') yield problem;
}
