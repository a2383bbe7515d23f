import type { Comparison, FindLeaf, HeadingLeaf, Plan } from './plan';
import { CODE, MOST_WORDS, Unanswerable } from './unanswerable';

/** An index, a relation and a term. */
export interface AskedCondition {
  readonly index: string;
  readonly by: string;
  /** Raw: a backslash guards what is behind it. */
  readonly term: string;
}

/** That an index cannot be looked for by a relation, and by which it can. */
export const noRelation = ({ index, by }: AskedCondition, there: string): Unanswerable =>
  new Unanswerable(CODE.relation, `“${index}” cannot be looked for by “${by}”; there is ${there}.`, by);

/** A number that is compared with. */
export function countTerm(asked: AskedCondition): { readonly is: Comparison; readonly n: number } {
  if (!/^\d{1,9}$/.test(wholeTerm(asked)))
    throw new Unanswerable(CODE.termForm, `“${asked.term}” is no number.`, asked.term);
  return { is: comparison(asked), n: Number(wholeTerm(asked)) };
}

/** The number of a record or heading. */
export function numberAsked(asked: AskedCondition, of: 'record' | 'heading'): number {
  if (!isEqual(asked)) throw noRelation(asked, '=');
  if (!/^\d{1,9}$/.test(wholeTerm(asked)))
    throw new Unanswerable(CODE.termForm, `“${asked.term}” is no number of a ${of}.`, asked.term);
  return Number(wholeTerm(asked));
}

/** Whether it is asked for the term itself. */
export const isEqual = ({ by }: AskedCondition): boolean => by === '=' || by === 'exact';

/** How values are compared; throws where the relation is another. */
export function comparison(asked: AskedCondition): Comparison {
  const by = asked.by === 'exact' ? '=' : asked.by;
  const found = (['=', '<', '<=', '>', '>='] as const).find((c) => c === by);
  if (!found) throw noRelation(asked, '=, <, <=, > and >=');
  return found;
}

/** What is so or is not. */
export function flagPlan<Leaf extends FindLeaf | HeadingLeaf>(asked: AskedCondition, flag: Leaf): Plan<Leaf> {
  if (!isEqual(asked)) throw noRelation(asked, '=');
  const said = wholeTerm(asked).toLowerCase();
  if (['yes', '1', 'true'].includes(said)) return flag;
  if (['no', '0', 'false'].includes(said)) return { type: 'not', of: flag };
  throw new Unanswerable(CODE.termForm, `“${asked.index}” is yes or no.`, asked.term);
}

/** A term without its guards; what masks is refused. */
export function wholeTerm({ index, term }: AskedCondition): string {
  if (/(^|[^\\])(\\\\)*[*?^]/.test(term))
    throw new Unanswerable(CODE.masking, `“${index}” is looked for as a whole, without *, ? and ^.`, term);
  return unguarded(term).trim();
}
/** A text without the backslashes that guard. */
export const unguarded = (text: string): string => text.replace(/\\(.)/gs, '$1');

/** A name without its guards; it may not be empty. */
export function named(asked: AskedCondition): string {
  const name = wholeTerm(asked);
  if (name === '') throw noTerm(asked);
  return name;
}

/** That there is nothing to look for. */
export const noTerm = ({ index }: AskedCondition): Unanswerable =>
  new Unanswerable(CODE.noTerm, `There is nothing to look for in “${index}”.`, index);
/** That a condition has more words than are looked for. */
export const tooManyWords = (n: number): Unanswerable =>
  new Unanswerable(
    CODE.tooMany,
    `There are ${n} words in one condition; at most ${MOST_WORDS} are looked for.`,
    String(n),
  );
