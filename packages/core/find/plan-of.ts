import { isCql, parseCql, type Cql, type CqlClause, type CqlNode } from '../query';
import { foldedWords } from '../text';
import { OF_HEADINGS, OF_RECORDS, type FindLanguage } from './language';
import type { AskedCondition } from './asked';
import { orderOf } from './order-of';
import {
  joinedPlans,
  type FindLeaf,
  type FindPlan,
  type FindProblem,
  type FindWord,
  type HeadingLeaf,
  type HeadingPlan,
  type Plan,
  type WordsLeaf,
} from './plan';
import { isQueryText } from './query-text';
import { CODE, DEEPEST, MOST_CLAUSES, MOST_WORDS, Unanswerable } from './unanswerable';

/** Works out a text that is a query in CQL and asks for records. */
export const planOfText = (text: string): FindPlan | FindProblem => planIn(text, OF_RECORDS);

function planIn<Leaf extends FindLeaf | HeadingLeaf, Where>(
  text: string,
  language: FindLanguage<Leaf, Where>,
): Plan<Leaf> | FindProblem {
  const read = parseCql(text);
  return isCql(read)
    ? planOf(read, language)
    : {
        problem: `${read.problem} (character ${read.at + 1})`,
        code: CODE.syntax,
        details: String(read.at + 1),
      };
}

/** Works out what is typed to find records: a query in CQL, or words, each as the beginning of one. */
export const planOfTyped = (text: string): FindPlan | FindProblem =>
  isQueryText(text) ? planOfText(text) : typedWords(text, null);

/** The same to find headings, by words of the forms by which they are known. */
export const headingPlanOfTyped = (text: string): HeadingPlan | FindProblem =>
  isQueryText(text, OF_HEADINGS) ? planIn(text, OF_HEADINGS) : typedWords(text, 'forms');

/** Words that are typed: all of them, each as the beginning of one; so many that they would be slow are told. */
export function typedWords<Column extends string | null>(
  text: string,
  column: Column,
): { readonly type: 'everything' } | WordsLeaf<Column> | FindProblem {
  const words = foldedWords(text);
  if (words.length === 0) return { type: 'everything' };
  if (words.length <= MOST_WORDS) return allWords(words, column);
  return {
    problem: `There are ${words.length} words; at most ${MOST_WORDS} are looked for at once.`,
    code: CODE.tooMany,
    details: String(words.length),
  };
}

/** All of some folded words, each as the beginning of one; a single letter or digit stands for itself. */
export const allWords = <Column extends string | null>(
  words: readonly string[],
  column: Column,
): WordsLeaf<Column> => ({
  ...{ type: 'words', column, how: 'all', isFirst: false },
  words: words.map((w): FindWord => ({ text: w, isBeginning: !/^[a-z0-9]$/.test(w) })),
});

/** Works out what a query asks in a language. */
export function planOf<Leaf extends FindLeaf | HeadingLeaf, Where>(
  { node, sort }: Cql,
  language: FindLanguage<Leaf, Where>,
): Plan<Leaf> | FindProblem {
  try {
    const [key] = sort;
    if (key && !language.sorts)
      throw new Unanswerable(CODE.sort, 'This list stands in its own order; leave “sortBy” out.', key.index);
    orderOf(sort);
    const clauses = countClauses(node);
    if (clauses > MOST_CLAUSES)
      throw new Unanswerable(
        CODE.tooMany,
        `The query has ${clauses} conditions; at most ${MOST_CLAUSES} are looked for at once.`,
        String(clauses),
      );
    return nodePlan(node, { prefixes: new Map(), language }, 0);
  } catch (error) {
    if (!(error instanceof Unanswerable)) throw error;
    return { problem: error.message, code: error.code, details: error.details };
  }
}

/** Counted without recursion: a query may be as long as its parser lets it be. */
function countClauses(root: CqlNode): number {
  const left: CqlNode[] = [root];
  let clauses = 0;
  for (let node = left.pop(); node; node = left.pop())
    if (node.type === 'clause') clauses++;
    else if (node.type === 'joined') left.push(node.left, node.right);
    else left.push(node.of);
  return clauses;
}

/** Context sets by their identifiers (Library of Congress, CQL context sets). */
const SETS: readonly (readonly [pattern: RegExp, set: string])[] = [
  [/cql-context-set\/1\/cql-v1\.[12]$/, 'cql'],
  [/cql-context-set\/1\/dc-v1\.1$/, 'dc'],
  [/(cql-context-set\/1\/bath-v[12]\.[01]|zing\.z3950\.org\/cql\/bath\/2\.0\/?)$/, 'bath'],
  [/cql-context-set\/2\/rec-1\.[01]$/, 'rec'],
];

interface Scope<Leaf, Where> {
  /** Context sets by the prefixes that stand for them here. */
  readonly prefixes: ReadonlyMap<string, string>;
  readonly language: FindLanguage<Leaf, Where>;
}

function nodePlan<Leaf extends FindLeaf | HeadingLeaf, Where>(
  node: CqlNode,
  scope: Scope<Leaf, Where>,
  depth: number,
): Plan<Leaf> {
  if (depth > DEEPEST)
    throw new Unanswerable(
      CODE.tooMany,
      `Conditions stand more than ${DEEPEST} deep in one another.`,
      String(DEEPEST),
    );
  if (node.type === 'prefixed') {
    const set = SETS.find(([pattern]) => pattern.test(node.uri))?.[1];
    if (!set)
      throw new Unanswerable(CODE.contextSet, `The context set “${node.uri}” is not known here.`, node.uri);
    const prefixes = new Map([...scope.prefixes, [node.prefix.toLowerCase(), set]]);
    return nodePlan(node.of, { ...scope, prefixes }, depth + 1);
  }
  if (node.type === 'clause') return clausePlan(node, scope);
  const [modifier] = node.modifiers;
  if (node.by === 'prox')
    throw new Unanswerable(
      CODE.boolean,
      'Words near one another (prox) cannot be looked for; use adj.',
      'prox',
    );
  if (modifier)
    throw new Unanswerable(
      CODE.booleanModifier,
      `“/${modifier.name}” is not understood here.`,
      modifier.name,
    );
  // Booleans go from the left: a long row of one kind is one list, not a deep tree.
  const { by } = node;
  const right = nodePlan(node.right, scope, depth + 1);
  if (by === 'not')
    return joinedPlans('and', [nodePlan(node.left, scope, depth), { type: 'not', of: right }]);
  return joinedPlans(by, [
    nodePlan(node.left, scope, node.left.type === 'joined' && node.left.by === by ? depth : depth + 1),
    right,
  ]);
}

function clausePlan<Leaf, Where>(clause: CqlClause, { prefixes, language }: Scope<Leaf, Where>): Plan<Leaf> {
  const { index, relation, term } = clause;
  const named = language.indexNamed(index === '' ? 'words' : withSet(index, prefixes));
  if (!named)
    throw new Unanswerable(
      CODE.index,
      `There is no index “${index}”. There are ${language.indexes
        .filter((i) => !i.name.includes('.'))
        .map((i) => i.name)
        .join(', ')}.`,
      index,
    );
  const [modifier] = relation?.modifiers ?? [];
  if (modifier)
    throw new Unanswerable(CODE.modifier, `“/${modifier.name}” is not understood here.`, modifier.name);
  const by = relation === null ? 'all' : relation.name.toLowerCase().replace(/^cql\./, '');
  const asked: AskedCondition = { index: named.name, by: by === '==' ? 'exact' : by, term };
  return asked.by === '<>'
    ? { type: 'not', of: language.conditionOf(named, { ...asked, by: '=' }) }
    : language.conditionOf(named, asked);
}

/** The name of an index with the context set that its prefix stands for in this part of the query. */
function withSet(index: string, prefixes: ReadonlyMap<string, string>): string {
  const [, prefix = '', name = index] = /^(?:([^.]*)\.)?(.*)$/.exec(index.toLowerCase()) ?? [];
  const set = prefixes.get(prefix);
  return set ? `${set}.${name}` : index;
}
