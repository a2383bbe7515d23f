import { CONTROL_NUMBER, ISBN, ISSN, LCCN } from '../access';
import { isCql, parseCql, type Cql, type CqlClause, type CqlNode } from '../query';
import { foldedWords } from '../text';
import { FIND_INDEXES, indexNamed, type FindWhere, type KeyPoint } from './indexes';
import type { Comparison, FindPlan, FindProblem, FindWord } from './plan';

/** Diagnostics of SRU that we give (SRU diagnostics list, info:srw/diagnostic/1). */
const CODE = {
  syntax: 10,
  tooMany: 12,
  contextSet: 15,
  index: 16,
  relation: 19,
  modifier: 20,
  noTerm: 27,
  masking: 28,
  anchoring: 31,
  boolean: 37,
  booleanModifier: 46,
  termForm: 36,
  sort: 80,
} as const;
/** Conditions that one query may have, and how deep they may stand in one another. */
const MOST_CLAUSES = 100;
const DEEPEST = 20;
const MOST_WORDS = 60;

class Unanswerable extends Error {
  constructor(
    readonly code: number,
    message: string,
    readonly details: string,
  ) {
    super(message);
  }
}

/** Works out a text that is a query in CQL. */
export function planOfText(text: string, isForOthers = false): FindPlan | FindProblem {
  const read = parseCql(text);
  return isCql(read)
    ? planOf(read, isForOthers)
    : {
        problem: `${read.problem} (character ${read.at + 1})`,
        code: CODE.syntax,
        details: String(read.at + 1),
      };
}

/** Works out what a query asks of records with their holdings and copies; other catalogues ask by the public indexes only. */
export function planOf({ node, sort }: Cql, isForOthers = false): FindPlan | FindProblem {
  try {
    if (sort.length)
      throw new Unanswerable(
        CODE.sort,
        'A query is not sorted by sortBy: choose the order of the list.',
        'sortBy',
      );
    const clauses = countClauses(node);
    if (clauses > MOST_CLAUSES)
      throw new Unanswerable(
        CODE.tooMany,
        `The query has ${clauses} conditions; at most ${MOST_CLAUSES} are looked for at once.`,
        String(clauses),
      );
    return nodePlan(node, { prefixes: new Map(), isForOthers }, 0);
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

interface Scope {
  /** Context sets by the prefixes that stand for them here. */
  readonly prefixes: ReadonlyMap<string, string>;
  readonly isForOthers: boolean;
}

function nodePlan(node: CqlNode, scope: Scope, depth: number): FindPlan {
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
  if (by === 'not') return joined('and', [nodePlan(node.left, scope, depth), { type: 'not', of: right }]);
  return joined(by, [
    nodePlan(node.left, scope, node.left.type === 'joined' && node.left.by === by ? depth : depth + 1),
    right,
  ]);
}

const joined = (type: 'and' | 'or', of: readonly FindPlan[]): FindPlan => ({
  type,
  of: of.flatMap((p) => (p.type === type ? p.of : [p])),
});

function clausePlan(clause: CqlClause, { prefixes, isForOthers }: Scope): FindPlan {
  const { index, relation, term } = clause;
  const named = index === '' ? indexNamed('words') : indexNamed(withSet(index, prefixes));
  const offered = FIND_INDEXES.filter((i) => i.isPublic || !isForOthers);
  if (!named || !offered.includes(named))
    throw new Unanswerable(
      CODE.index,
      `There is no index “${index}”. There are ${offered
        .filter((i) => !i.name.includes('.'))
        .map((i) => i.name)
        .join(', ')}.`,
      index,
    );
  const [modifier] = relation?.modifiers ?? [];
  if (modifier)
    throw new Unanswerable(CODE.modifier, `“/${modifier.name}” is not understood here.`, modifier.name);
  const by = relation === null ? 'all' : relation.name.toLowerCase().replace(/^cql\./, '');
  const asked: Asked = { index: named.name, by: by === '==' ? 'exact' : by, term };
  if (asked.by === '<>') return { type: 'not', of: leafPlan(named.where, { ...asked, by: '=' }) };
  return leafPlan(named.where, asked);
}

/** The name of an index with the context set that its prefix stands for in this part of the query. */
function withSet(index: string, prefixes: ReadonlyMap<string, string>): string {
  const [, prefix = '', name = index] = /^(?:([^.]*)\.)?(.*)$/.exec(index.toLowerCase()) ?? [];
  const set = prefixes.get(prefix);
  return set ? `${set}.${name}` : index;
}

interface Asked {
  readonly index: string;
  readonly by: string;
  /** Raw: a backslash guards what is behind it. */
  readonly term: string;
}

const noRelation = ({ index, by }: Asked, there: string): Unanswerable =>
  new Unanswerable(CODE.relation, `“${index}” cannot be looked for by “${by}”; there is ${there}.`, by);

function leafPlan(where: FindWhere, asked: Asked): FindPlan {
  switch (where.as) {
    case 'everything':
      return { type: 'everything' };
    case 'words':
      return wordsPlan(where.column, asked);
    case 'key':
      return keyPlan(where.point, asked);
    case 'value':
      return valuePlan(where, asked);
    case 'count': {
      const n = Number(plain(asked));
      if (!/^\d{1,9}$/.test(plain(asked)))
        throw new Unanswerable(CODE.termForm, `“${asked.term}” is no number.`, asked.term);
      return { type: 'count', of: where.of, is: comparison(asked), n };
    }
    case 'number': {
      if (!isEqual(asked)) throw noRelation(asked, '=');
      const id = Number(plain(asked));
      if (!/^\d{1,9}$/.test(plain(asked)))
        throw new Unanswerable(CODE.termForm, `“${asked.term}” is no number of a record.`, asked.term);
      return { type: 'number', id };
    }
    case 'finding':
      if (!isEqual(asked)) throw noRelation(asked, '=');
      return { type: 'finding', rule: plain(asked) };
    case 'flag':
      return flagPlan(where.flag, asked);
  }
}

const isEqual = ({ by }: Asked): boolean => by === '=' || by === 'exact';

function comparison(asked: Asked): Comparison {
  const by = asked.by === 'exact' ? '=' : asked.by;
  const found = (['=', '<', '<=', '>', '>='] as const).find((c) => c === by);
  if (!found) throw noRelation(asked, '=, <, <=, > and >=');
  return found;
}

function flagPlan(flag: 'suppressed' | 'brief', asked: Asked): FindPlan {
  if (!isEqual(asked)) throw noRelation(asked, '=');
  const said = plain(asked).toLowerCase();
  if (['yes', '1', 'true'].includes(said)) return { type: 'flag', flag };
  if (['no', '0', 'false'].includes(said)) return { type: 'not', of: { type: 'flag', flag } };
  throw new Unanswerable(CODE.termForm, `“${asked.index}” is yes or no.`, asked.term);
}

/** A term without its guards; what masks is refused. */
function plain({ index, term }: Asked): string {
  if (/(^|[^\\])(\\\\)*[*?^]/.test(term))
    throw new Unanswerable(CODE.masking, `“${index}” is looked for as a whole, without *, ? and ^.`, term);
  return unguarded(term).trim();
}
const unguarded = (text: string): string => text.replace(/\\(.)/gs, '$1');

const POINTS: Readonly<Record<KeyPoint, { readonly title: string; normalise(text: string): string }>> = {
  isbn: ISBN,
  issn: ISSN,
  lccn: LCCN,
  control: CONTROL_NUMBER,
};

function keyPlan(point: KeyPoint, asked: Asked): FindPlan {
  if (!isEqual(asked)) throw noRelation(asked, '=');
  const key = POINTS[point].normalise(plain(asked));
  if (key === '')
    throw new Unanswerable(CODE.termForm, `“${asked.term}” is no ${POINTS[point].title}.`, asked.term);
  return { type: 'key', point, key };
}

function valuePlan(where: Extract<FindWhere, { as: 'value' }>, asked: Asked): FindPlan {
  const { of, column } = where;
  const leaf = (is: Comparison | 'begins', value: string): FindPlan => ({
    type: 'value',
    of,
    column,
    is,
    value,
  });
  if ('isDate' in where) {
    const form = column === 'year' ? /^\d{4}$/ : /^\d{4}(-\d\d){0,2}$/;
    const date = (text: string): string => {
      if (!form.test(text))
        throw new Unanswerable(
          CODE.termForm,
          `“${text}” is no ${column === 'year' ? 'year of four digits' : 'date such as 2026-03 or 2026-03-04'}.`,
          text,
        );
      return text;
    };
    if (asked.by === 'within') {
      const [from = '', to = '', ...more] = plain(asked).split(/\s+/);
      if (to === '' || more.length)
        throw new Unanswerable(CODE.termForm, 'Type two of them behind “within”: "1990 1999".', asked.term);
      return joined('and', [leaf('>=', date(from)), upTo(date(to), leaf)]);
    }
    const is = comparison(asked);
    const value = date(plain(asked));
    // A month or a year stands for all of its days.
    if (is === '=' && column !== 'year') return leaf('begins', value);
    if (is === '<=') return upTo(value, leaf);
    return leaf(is, is === '>' ? value + LAST : value);
  }
  if (asked.by === 'any' || asked.by === 'all') {
    const values = plain(asked).split(/\s+/).filter(Boolean);
    if (values.length === 0) throw noTerm(asked);
    if (values.length > MOST_WORDS) throw tooManyWords(values.length);
    return joined(
      asked.by === 'any' ? 'or' : 'and',
      values.map((v) => leaf('=', v)),
    );
  }
  if (!isEqual(asked)) throw noRelation(asked, '=, any and all');
  const begins = /^((?:[^\\*?^]|\\.)+)\*$/s.exec(asked.term)?.[1];
  if (begins !== undefined) return leaf('begins', unguarded(begins));
  const value = plain(asked);
  if (value === '') throw noTerm(asked);
  return leaf('=', value);
}

/** Behind every day of a month or year. */
const LAST = '\uffff';
const upTo = (value: string, leaf: (is: Comparison, value: string) => FindPlan): FindPlan =>
  leaf('<=', value + LAST);

const noTerm = ({ index }: Asked): Unanswerable =>
  new Unanswerable(CODE.noTerm, `There is nothing to look for in “${index}”.`, index);
const tooManyWords = (n: number): Unanswerable =>
  new Unanswerable(
    CODE.tooMany,
    `There are ${n} words in one condition; at most ${MOST_WORDS} are looked for.`,
    String(n),
  );

function wordsPlan(column: 'title' | 'name' | 'subject' | null, asked: Asked): FindPlan {
  const { by, term } = asked;
  if (by === 'exact' && column === 'title') {
    const value = foldedWords(plain(asked)).join(' ');
    if (value === '') throw noTerm(asked);
    return { type: 'value', of: 'record', column: 'sort', is: '=', value };
  }
  const how = by === '=' || by === 'adj' ? 'phrase' : by === 'all' || by === 'any' ? by : null;
  if (how === null)
    throw noRelation(asked, column === 'title' ? '=, adj, all, any and ==' : '=, adj, all and any');
  const isFirst = /^\s*\^/.test(term);
  if (isFirst && how !== 'phrase')
    throw new Unanswerable(CODE.anchoring, '^ stands before a phrase: title = "^eels of".', term);
  const words = wordsOf(isFirst ? term.replace(/^\s*\^/, '') : term);
  if (words.length === 0) throw noTerm(asked);
  if (words.length > MOST_WORDS) throw tooManyWords(words.length);
  if (how === 'phrase' && words.slice(0, -1).some((w) => w.isBeginning))
    throw new Unanswerable(CODE.masking, 'In a phrase only the last word may end with *.', term);
  return { type: 'words', column, how, words, isFirst };
}

/** The words of a term; one that ends with an unguarded `*` may go on. */
function wordsOf(term: string): FindWord[] {
  return (term.match(/(?:\\.|[^\s\\])+/gs) ?? []).flatMap((chunk) => {
    const [, text = '', star = ''] = /^((?:\\.|[^\\])*?)(\*?)$/s.exec(chunk) ?? [];
    if (/(^|[^\\])(\\\\)*[*?^]/.test(text))
      throw new Unanswerable(CODE.masking, 'Only * at the end of a word stands for what is not said.', chunk);
    const words = foldedWords(unguarded(text));
    if (star && words.length === 0)
      throw new Unanswerable(CODE.masking, 'Type at least one letter before *.', chunk);
    return words.map((w, i): FindWord => ({ text: w, isBeginning: star === '*' && i === words.length - 1 }));
  });
}
