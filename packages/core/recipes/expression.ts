import { RE2JS } from 're2js';
import type { TextMatch } from './step-values';

/** Texts longer than this are left alone by an expression. */
export const LONGEST_TEXT = 10_000;
/** Expressions that are compiled to more steps than this are refused: each character of a text may cost as many. */
const LARGEST = 1_500;
const NOTHING = 'Type the text to find.';

/** One place of a text that matches, with the groups of an expression from `$1` on (undefined where one took no part). */
interface Match {
  readonly from: number;
  readonly to: number;
  readonly groups: readonly (string | undefined)[];
  readonly named: Readonly<Record<string, number>>;
}

/** What looks for matches: the first at or behind a place, or null. */
type Matcher = (text: string, from: number) => Match | null;

/**
 * The matcher of a match, or a sentence on what is wrong with it. Expressions run on an engine whose time grows with the
 * text and the expression only (RE2's syntax), whatever they are.
 */
export function expressionOf({ find, expression }: TextMatch): Matcher | string {
  if (find === '') return NOTHING;
  return expression ? written(find) : plain(find);
}

/** Prepares the question whether a text matches; any does when nothing is asked for, none when the match is not well formed. */
export function matcher(match: TextMatch | undefined): (text: string) => boolean {
  if (!match) return () => true;
  const found = expressionOf(match);
  if (typeof found === 'string') return () => false;
  return (text) => text.length <= LONGEST_TEXT && found(text, 0) !== null;
}

/**
 * Prepares what gives a text with every match replaced; `$1` in `by` stands for a group when the match is an expression. A match
 * that is not well formed replaces nothing; `recipeProblems` tells it beforehand.
 */
export function replacer(match: TextMatch, by: string): (text: string) => string {
  const found = expressionOf(match);
  if (typeof found === 'string') return (text) => text;
  return (text) =>
    text.length > LONGEST_TEXT ? text : replacedBy(text, found, by, match.expression === true);
}

function plain(find: string): Matcher {
  const pattern = new RegExp(find.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), 'giu');
  return (text, from) => {
    pattern.lastIndex = from;
    const found = pattern.exec(text);
    return found && { from: found.index, to: found.index + found[0].length, groups: [], named: {} };
  };
}

function written(find: string): Matcher | string {
  if (find.includes('\\k<')) return problemOf(find, '');
  try {
    const compiled = RE2JS.compile(asRe2(find), RE2JS.LOOKBEHINDS);
    if (compiled.programSize() > LARGEST)
      return `The expression “${find}” is too large. Repeat fewer times, or take two steps.`;
    const named = compiled.namedGroups();
    return (text, from) => {
      const matcher = compiled.matcher(text);
      if (!matcher.find(from)) return null;
      const groups = Array.from(
        { length: matcher.groupCount() },
        (_, i) => matcher.group(i + 1) ?? undefined,
      );
      return { from: matcher.start(), to: matcher.end(), groups, named };
    };
  } catch (error) {
    return problemOf(find, error instanceof Error ? error.message : '');
  }
}

/** What an expression asks for that the engine does not have, or what is wrong with it. */
function problemOf(find: string, said: string): string {
  const lacks = LACKING.find(([pattern]) => pattern.test(find))?.[1];
  if (lacks && !/missing|unexpected/.test(said))
    return `The expression “${find}” ${lacks}, which is not supported here. Use a condition of the step, or two steps.`;
  const reason = said.replace(/^error parsing regexp: /, '');
  return `The expression “${find}” is not well formed: ${reason || 'it cannot be read'}.`;
}
const LACKING: readonly (readonly [RegExp, string])[] = [
  [/\\[1-9]|\\k</, 'refers back to a group'],
  [/\(\?[=!]/, 'looks ahead'],
  [/\(\?<[=!]/, 'looks behind with a group or a changing length'],
];

/** White space as the expressions of earlier recipes had it, which in RE2 is that of ASCII only. */
const SPACES =
  '\\t\\n\\x0b\\f\\r \\x{a0}\\x{1680}\\x{2000}-\\x{200a}\\x{2028}\\x{2029}\\x{202f}\\x{205f}\\x{3000}\\x{feff}';

/** An expression in RE2's syntax: names of groups, \u escapes, and white space of all scripts. */
function asRe2(find: string): string {
  const syntax: string = RE2JS.translateRegExp(find);
  let out = '';
  let inClass = false;
  for (let i = 0; i < syntax.length; i++) {
    const c = syntax[i]!;
    if (c === '\\') {
      const next = syntax[++i] ?? '';
      if (next === 's') out += inClass ? SPACES : `[${SPACES}]`;
      else if (next === 'S' && !inClass) out += `[^${SPACES}]`;
      else out += c + next;
      continue;
    }
    if (c === '[' && !inClass) inClass = true;
    else if (c === ']' && inClass) inClass = false;
    out += c;
  }
  return out;
}

function replacedBy(text: string, find: Matcher, by: string, isExpression: boolean): string {
  let out = '';
  let at = 0;
  for (let from = 0; from <= text.length;) {
    const match = find(text, from);
    if (!match) break;
    out += text.slice(at, match.from) + (isExpression ? expanded(by, text, match) : by);
    at = match.to;
    // Behind an empty match the search goes on one character further.
    from = match.to > match.from ? match.to : match.to + (text.codePointAt(match.to)! > 0xffff ? 2 : 1);
  }
  const next = out + text.slice(at);
  return next === text ? text : next.normalize('NFC');
}

/** The replacement of one match: `$1` and `$<name>` groups, `$&` the match, `$$` a dollar. */
const expanded = (by: string, text: string, { from, to, groups, named }: Match): string =>
  by.replace(/\$(?:\$|&|<([^>]*)>|(\d\d?))/g, (whole, name?: string, number?: string) => {
    if (whole === '$$') return '$';
    if (whole === '$&') return text.slice(from, to);
    if (name !== undefined) return groups[(named[name] ?? 0) - 1] ?? '';
    const n = Number(number);
    if (n >= 1 && n <= groups.length) return groups[n - 1] ?? '';
    const first = Number(number![0]);
    return first >= 1 && first <= groups.length ? (groups[first - 1] ?? '') + number!.slice(1) : whole;
  });
