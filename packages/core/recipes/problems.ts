import { isAddress, parseAddress } from '../address';
import { CHECKS } from '../checks';
import { expressionOf } from './expression';
import type { Recipe, Step } from './step';

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
  if ('tags' in step && !/^[0-9A-Za-z.]{3}$/.test(step.tags))
    yield `“${step.tags}” names no tags: three characters, a point for any digit.`;
  for (const tag of ['to', 'tag'] as const) {
    const value = (step as unknown as Record<string, unknown>)[tag];
    const isTag = step.step !== 'change-case' && typeof value === 'string';
    if (isTag && value !== 'LDR' && !/^[0-9A-Za-z]{3}$/.test(value)) yield `“${value}” is no tag.`;
  }
  if ('code' in step && !/^[a-z0-9]$/.test(step.code)) yield `“${step.code}” is no subfield code.`;
  if ('match' in step && step.match) {
    const expression = expressionOf(step.match);
    if (typeof expression === 'string') yield expression;
  }
  if (step.step === 'apply-fixes' && !CHECKS.some((c) => c.rule === step.rule))
    yield `There is no check “${step.rule}”.`;
  for (const text of MUST_SAY[step.step] ?? [])
    if (!(step as unknown as Record<string, string>)[text]) yield 'It does not say which text.';
  if (step.step === 'add-field' && 'subfields' in step.field && !step.field.subfields.some((s) => s.value))
    yield 'The field that is added has no text.';
  if (step.step === 'set-indicator' && step.value.length !== 1) yield 'An indicator is one character.';
  if (step.step === 'build-field')
    for (const { template } of step.parts)
      for (const [, written] of template.matchAll(/\{([^{}]+)\}/g)) yield* addressProblem(written!);
  for (const written of [step.when?.has, step.when?.lacks])
    if (written !== undefined) yield* addressProblem(written);
}

/** Texts without which a step does nothing, or more than is meant. */
const MUST_SAY: Partial<Record<Step['step'], readonly string[]>> = {
  'set-subfield': ['value'],
  'drop-subdivision': ['text'],
  'rename-subdivision': ['text', 'by'],
  'set-position': ['text'],
};

function* addressProblem(written: string): Iterable<string> {
  const address = parseAddress(written);
  if (!isAddress(address)) yield `“${written}” is no field address: ${address.problem}`;
}
