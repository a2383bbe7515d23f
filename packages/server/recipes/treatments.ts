import { counted } from '@osier/core/changes';
import { checkerFor, CHECKS, ruleNow, fixAll } from '@osier/core/checks';
import type { HouseRules } from '@osier/core/house';
import type { MarcRecord } from '@osier/core/marc';
import { recipeRunner, stepSentence, type Recipe } from '@osier/core/recipes';
import { wrong } from '../http/problem';
import { recipeNamed, whyNotRun } from './recipes';
import type { Store } from '../store/store';

/** Something that is done to every record of a delivery. */
export interface Treatment {
  readonly name: string;
  /** The record after it, and what touched it as keys of `parts`; none when it stayed the same. */
  treat(marc: MarcRecord): { readonly marc: MarcRecord; readonly touched: readonly string[] };
  /** What it consists of, in the order in which it is told. */
  readonly parts: readonly { readonly key: string; readonly sentence: string }[];
}

/** A treatment as a plain value, kept with the job. */
export interface TreatmentWork {
  readonly recipe?: string;
  /** Rules whose safe fixes are applied; empty for all. */
  readonly rules?: readonly string[];
}

/** `supplier` is the name on the delivery's sheet, for steps that are for some suppliers only. */
export async function treatmentOf(work: TreatmentWork, store: Store, supplier = ''): Promise<Treatment> {
  const house = await store.rulesNow();
  return work.recipe === undefined
    ? safeFixes(work.rules ?? [], house)
    : recipeTreatment(await recipeNamed(store, work.recipe), house, supplier);
}

function recipeTreatment(recipe: Recipe, house: HouseRules, supplier: string): Treatment {
  const why = whyNotRun(recipe);
  if (why !== null) throw wrong('recipe', why);
  const run = recipeRunner(recipe, checkerFor(house), supplier);
  return {
    name: recipe.name,
    parts: recipe.steps.map((step, i) => ({ key: String(i), sentence: stepSentence(step, house) })),
    treat(marc) {
      const { record, touched } = run(marc);
      return { marc: record, touched: touched.map(String) };
    },
  };
}

function safeFixes(named: readonly string[], house: HouseRules): Treatment {
  const rules = named.map(ruleNow);
  const chosen = CHECKS.filter((c) => rules.length === 0 || rules.includes(c.rule));
  const unknown = rules.find((r) => !CHECKS.some((c) => c.rule === r));
  if (unknown !== undefined) throw wrong('rules', `There is no check “${unknown}”.`);
  const checker = checkerFor(house);
  const only = new Set(chosen.map((c) => c.rule));
  return {
    name: chosen.length === 1 ? `Safe fixes: ${chosen[0]!.title}` : 'Safe fixes',
    parts: chosen.map((c) => ({ key: c.rule, sentence: c.title })),
    treat(marc) {
      const { record, corrected } = fixAll(marc, checker, only);
      return { marc: record, touched: corrected.map((f) => f.rule) };
    },
  };
}

/** How much each part of a treatment did, as sentences; with a remark where it did nothing or nearly everything. */
export function consequencesOf(
  treatment: Treatment,
  touched: readonly (readonly string[])[],
  waiting: number,
): string[] {
  const recipe = treatment.parts.length > 0 && treatment.parts[0]!.key === '0';
  return treatment.parts.flatMap(({ key, sentence }) => {
    const records = touched.filter((t) => t.includes(key)).length;
    if (records === 0) return recipe ? [`${sentence}: changes nothing.`] : [];
    const times = touched.reduce((n, all) => n + all.filter((t) => t === key).length, 0);
    const more = times > records ? `, ${counted(times, 'place')}` : '';
    const nearlyAll = records > waiting * 0.9 && waiting > 5 ? ', nearly all' : '';
    return [`${sentence}: ${counted(records, 'record')}${nearlyAll}${more}.`];
  });
}
