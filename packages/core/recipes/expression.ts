import { beginsWithAnything, runawayIn } from './runaway';
import type { TextMatch } from './step';

/** Texts longer than this are left alone by an expression. */
export const LONGEST_TEXT = 10_000;

/**
 * The regular expression of a match, or a sentence on what is wrong with it. What could run for ever is refused
 * (`runaway.ts`): nothing can stop an expression once it runs.
 */
export function expressionOf({ find, expression }: TextMatch): RegExp | string {
  const key = `${expression ? 'e' : 't'}${find}`;
  let made = known.get(key);
  if (made === undefined) {
    made = expression ? written(find) : plain(find);
    if (known.size >= MOST) known.clear();
    known.set(key, made);
  }
  return made;
}

/** The same few expressions are asked for again and again, for every text of every record. */
const known = new Map<string, RegExp | string>();
const MOST = 500;
const NOTHING = 'There is nothing to look for.';

const plain = (find: string): RegExp | string =>
  find === '' ? NOTHING : new RegExp(find.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), 'giu');

function written(find: string): RegExp | string {
  if (find === '') return NOTHING;
  try {
    // Where it begins with anything at all, a match begins where the search does or nowhere.
    return runawayIn(find) ?? new RegExp(find, beginsWithAnything(find) ? 'guy' : 'gu');
  } catch (error) {
    return `The expression “${find}” is not well formed: ${(error as Error).message.replace(/^.*: /, '')}.`;
  }
}

/** The text with every match replaced; `$1` in `by` stands for a group when the match is an expression. */
export function replaced(text: string, match: TextMatch, by: string): string {
  const expression = expressionOf(match);
  if (typeof expression === 'string' || text.length > LONGEST_TEXT) return text;
  const next = text.replace(linesApart(expression, text), match.expression ? by : by.replaceAll('$', '$$$$'));
  return next === text ? text : next.normalize('NFC');
}

/** In a text of several lines a point does not go beyond the line, and a match may begin in the next. */
const linesApart = (expression: RegExp, text: string): RegExp =>
  expression.sticky && /[\n\r\u2028\u2029]/.test(text) ? new RegExp(expression.source, 'gu') : expression;

/** Whether a text matches. A match that is not well formed matches nothing; `recipeProblems` tells it beforehand. */
export function matches(text: string, match: TextMatch | undefined): boolean {
  if (!match) return true;
  const expression = expressionOf(match);
  if (typeof expression === 'string' || text.length > LONGEST_TEXT) return false;
  const tried = linesApart(expression, text);
  tried.lastIndex = 0;
  return tried.test(text);
}
