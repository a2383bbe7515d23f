import type { TextMatch } from './step';

/** Texts longer than this are left alone by an expression. */
export const LONGEST_TEXT = 10_000;

/**
 * The regular expression of a match, or a sentence on what is wrong with it. What could run for ever is refused: a
 * repetition of something that repeats itself, a reference back, more than two open repetitions of anything.
 */
export function expressionOf({ find, expression }: TextMatch): RegExp | string {
  if (find === '') return 'There is nothing to look for.';
  if (!expression) return new RegExp(find.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), 'giu');
  const runaway = runawayIn(find);
  if (runaway) return runaway;
  try {
    return new RegExp(find, 'gu');
  } catch (error) {
    return `The expression “${find}” is not well formed: ${(error as Error).message.replace(/^.*: /, '')}.`;
  }
}

function runawayIn(pattern: string): string | null {
  const plain = pattern
    .replace(/\\[\s\S]/g, (escape) => (/\\[1-9k]/.test(escape) ? '\u0001' : 'x'))
    .replace(/\[[^\]]*\]/g, 'x');
  if (plain.includes('\u0001'))
    return `“${pattern}” refers back to a group, which could run for ever on a long text.`;
  const open: boolean[] = [];
  let wide = 0;
  for (let i = 0; i < plain.length; i++) {
    const repeats = /^(?:[*+]|\{\d+,\d*\})/.test(plain.slice(i + 1));
    if (plain[i] === '(') open.push(false);
    else if (plain[i] === ')') {
      const inner = open.pop() ?? false;
      if (inner && repeats)
        return `“${pattern}” repeats something that repeats itself, which could run for ever on a long text.`;
      if ((inner || repeats) && open.length) open[open.length - 1] = true;
    } else if (repeats) {
      if (open.length) open[open.length - 1] = true;
      if (plain[i] === '.' && ++wide > 2)
        return `“${pattern}” has more than two open repetitions (.*), which could run for ever on a long text.`;
    }
  }
  return null;
}

/** Whether a text matches. A match that is not well formed matches nothing; `recipeProblems` tells it beforehand. */
export function matches(text: string, match: TextMatch | undefined): boolean {
  if (!match) return true;
  const expression = expressionOf(match);
  if (typeof expression === 'string' || text.length > LONGEST_TEXT) return false;
  expression.lastIndex = 0;
  return expression.test(text);
}
