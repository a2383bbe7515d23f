import {
  isJoined,
  isNot,
  type Comparison,
  type FindLeaf,
  type HeadingLeaf,
  type Plan,
  type ValueTest,
  type WordsLeaf,
} from './plan';

/** Whether a plan holds, by whether each of its conditions does. */
export function holdsBy<Leaf extends FindLeaf | HeadingLeaf>(
  plan: Plan<Leaf>,
  holds: (leaf: Leaf) => boolean,
): boolean {
  if (isJoined(plan))
    return plan.type === 'and'
      ? plan.of.every((p) => holdsBy(p, holds))
      : plan.of.some((p) => holdsBy(p, holds));
  return isNot(plan) ? !holdsBy(plan.of, holds) : holds(plan);
}

/** Whether texts of folded words have what is asked of them: all or any of the words in any of them, a phrase within one. */
export function holdsWords(
  { how, words, isFirst }: WordsLeaf<string | null>,
  of: readonly string[],
): boolean {
  const texts = of.map((text) => text.split(' ').filter(Boolean));
  const fits = (word: string | undefined, asked: { text: string; isBeginning: boolean }) =>
    word !== undefined && (asked.isBeginning ? word.startsWith(asked.text) : word === asked.text);
  if (how === 'phrase')
    return texts.some((text) =>
      text.some((_, at) => (at === 0 || !isFirst) && words.every((w, i) => fits(text[at + i], w))),
    );
  const has = (asked: (typeof words)[number]) => texts.some((text) => text.some((w) => fits(w, asked)));
  return how === 'all' ? words.every(has) : words.some(has);
}

/** Whether a value is as a condition says. */
export const isSo = (
  v: string,
  { is, value, to }: { readonly is: ValueTest; readonly value: string; readonly to: string },
): boolean =>
  is === 'begins' ? v.startsWith(value) : is === 'within' ? v >= value && v <= to : compares(v, is, value);

/** Whether two names are the same; letters of ASCII are so in either case. */
export const sameName = (a: string, b: string): boolean => asciiLower(a) === asciiLower(b);
const asciiLower = (text: string): string => text.replace(/[A-Z]/g, (c) => c.toLowerCase());

/** Whether one value stands to another as is said. */
export function compares<T extends string | number>(a: T, is: Comparison, b: T): boolean {
  switch (is) {
    case '=':
      return a === b;
    case '<':
      return a < b;
    case '<=':
      return a <= b;
    case '>':
      return a > b;
    case '>=':
      return a >= b;
  }
}
