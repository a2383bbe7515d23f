import { hasAny, isAddress, parseAddress } from '../address';
import type { HouseRules } from '../house';
import { controlValue, type MarcRecord } from '../marc';
import { runStepBody } from './run-step';
import type { Condition, Recipe } from './step';

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

/** Runs a recipe over one record. A step that changes nothing leaves the record the same value. */
export function runRecipe(record: MarcRecord, recipe: Recipe, house: HouseRules, supplier = ''): Cleaned {
  const touched: number[] = [];
  let current = record;
  recipe.steps.forEach((step, i) => {
    if (step.when && !holds(current, step.when, supplier)) return;
    const next = runStepBody(current, step, house);
    if (next !== current) touched.push(i);
    current = next;
  });
  return { record: current, touched };
}

function holds(record: MarcRecord, c: Condition, supplier: string): boolean {
  const isThere = (written: string) => {
    const address = parseAddress(written);
    return isAddress(address) && hasAny(record, address);
  };
  if (c.has !== undefined && !isThere(c.has)) return false;
  if (c.lacks !== undefined && isThere(c.lacks)) return false;
  if (c.languages?.length && !c.languages.includes(controlValue(record, '008')?.slice(35, 38) ?? ''))
    return false;
  if (c.types?.length && !c.types.includes(record.leader[6] ?? '')) return false;
  return !c.suppliers?.length || c.suppliers.includes(supplier);
}
