import { hasAny, isAddress, parseAddress } from '../address';
import type { Checker } from '../checks';
import type { MarcRecord } from '../marc';
import { languageOf } from './select';
import type { Condition, Recipe } from './step';
import { stepKind } from './step-of';

/** What a recipe made of a record, and which steps (by index) touched it. */
export interface Cleaned {
  readonly record: MarcRecord;
  readonly touched: readonly number[];
}

/** The recipes that come with Osier. */
export const BUILT_IN: readonly Recipe[] = [
  {
    id: 'house-style',
    name: 'House style',
    steps: [
      { step: 'capital-after-article', tag: '245' },
      { step: 'drop-duplicate-subjects' },
      { step: 'cut-class', tag: '082' },
    ],
  },
];

/** Cleans one record after another. */
export type Cleaning = (record: MarcRecord) => Cleaned;

/**
 * Prepares a recipe for many records; `supplier` is the name that conditions ask for. A step that changes nothing leaves the
 * record the same value.
 */
export function recipeRunner(recipe: Recipe, checker: Checker, supplier = ''): Cleaning {
  const steps = recipe.steps.map((step) => ({
    holds: conditionOf(step.when, supplier),
    run: stepKind(step).prepare(step, checker),
  }));
  return (record) => {
    const touched: number[] = [];
    let current = record;
    for (const [i, { holds, run }] of steps.entries()) {
      if (!holds(current)) continue;
      const next = run(current);
      if (next !== current) touched.push(i);
      current = next;
    }
    return { record: current, touched };
  };
}

/** What tells whether a step is for a record. */
function conditionOf(c: Condition | undefined, supplier: string): (record: MarcRecord) => boolean {
  if (!c) return () => true;
  if (c.suppliers?.length && !c.suppliers.includes(supplier)) return () => false;
  const has = c.has === undefined ? null : parseAddress(c.has);
  const lacks = c.lacks === undefined ? null : parseAddress(c.lacks);
  return (record) => {
    if (has && !(isAddress(has) && hasAny(record, has))) return false;
    if (lacks && isAddress(lacks) && hasAny(record, lacks)) return false;
    if (c.languages?.length && !c.languages.includes(languageOf(record))) return false;
    return !c.types?.length || c.types.includes(record.leader[6] ?? '');
  };
}
