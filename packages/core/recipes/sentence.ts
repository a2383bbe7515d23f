import { codeName } from '../format';
import type { HouseRules } from '../house';
import type { Condition, Step } from './step';
import { stepKind } from './step-of';

/** A step as a sentence. */
export function stepSentence(step: Step, house: HouseRules): string {
  const said = stepKind(step).sentence(step, house);
  const when = step.when && conditionSentence(step.when);
  return when ? `${said}, where ${when}` : said;
}

function conditionSentence(c: Condition): string {
  const parts: string[] = [];
  if (c.has !== undefined) parts.push(`the record has ${c.has}`);
  if (c.lacks !== undefined) parts.push(`it lacks ${c.lacks}`);
  if (c.languages?.length)
    parts.push(`the language is ${c.languages.map((l) => codeName('languages', l) ?? l).join(' or ')}`);
  if (c.types?.length) parts.push(`the type of record is ${c.types.join(' or ')}`);
  if (c.suppliers?.length) parts.push(`the supplier is ${c.suppliers.join(' or ')}`);
  return parts.join(' and ');
}
