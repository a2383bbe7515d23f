/** A modifier of a relation, of a boolean or of a sort key: `/name`, or `/name=value` with one of the comparing signs. */
export interface CqlModifier {
  readonly name: string;
  readonly sign: string;
  /** '' where there is none. */
  readonly value: string;
}

/** How an index and a term are related: `=`, `==`, `<>`, `<`, `>`, `<=`, `>=`, or a word such as `any`. */
export interface CqlRelation {
  readonly name: string;
  readonly modifiers: readonly CqlModifier[];
}

/** One condition: a term, or an index, a relation and a term. */
export interface CqlClause {
  readonly type: 'clause';
  /** '' for a term that stands alone: the server chooses (`cql.serverChoice`). */
  readonly index: string;
  /** Null for a term that stands alone. */
  readonly relation: CqlRelation | null;
  /** As it was in the query without its quotation marks; a backslash still guards what is behind it. */
  readonly term: string;
}

/** Two conditions joined. */
export interface CqlJoined {
  readonly type: 'joined';
  readonly by: 'and' | 'or' | 'not' | 'prox';
  readonly modifiers: readonly CqlModifier[];
  readonly left: CqlNode;
  readonly right: CqlNode;
}

/** A prefix that names a context set within a part of a query: `> dc = "info:srw/…"`; '' for the default set. */
export interface CqlPrefixed {
  readonly type: 'prefixed';
  readonly prefix: string;
  readonly uri: string;
  readonly of: CqlNode;
}

export type CqlNode = CqlClause | CqlJoined | CqlPrefixed;

/** What a result is sorted by. */
export interface CqlSortKey {
  readonly index: string;
  readonly modifiers: readonly CqlModifier[];
}

/** A query in the Contextual Query Language, versions 1.1 to 2.0. */
export interface Cql {
  readonly node: CqlNode;
  readonly sort: readonly CqlSortKey[];
}

/** A condition of an index and a term as a person has it: what is special in CQL is guarded. */
export const cqlClause = (index: string, relation: string, text: string): CqlClause => ({
  type: 'clause',
  index,
  relation: { name: relation, modifiers: [] },
  term: cqlGuarded(text),
});

/** Conditions joined from the left; null for none. */
export const cqlJoined = (by: 'and' | 'or', nodes: readonly CqlNode[]): CqlNode | null =>
  nodes.length === 0
    ? null
    : nodes.reduce((left, right) => ({ type: 'joined', by, modifiers: [], left, right }));

/** A text as a term: backslash, quotation mark, and the masking signs `*`, `?` and `^` stand for themselves. */
export const cqlGuarded = (text: string): string => text.replace(/[\\"*?^]/g, '\\$&');

/** Writes a query so that reading it gives the same. */
export const cqlText = ({ node, sort }: Cql): string =>
  `${nodeText(node)}${sort.length ? ` sortBy ${sort.map((s) => `${word(s.index)}${modifiersText(s.modifiers)}`).join(' ')}` : ''}`;

function nodeText(node: CqlNode): string {
  if (node.type === 'prefixed')
    return `> ${node.prefix ? `${word(node.prefix)} = ` : ''}${quotedTerm(node.uri)} ${nodeText(node.of)}`;
  if (node.type === 'joined') {
    // Booleans are of one rank and go from the left: what is joined at the right, or has a prefix, is in brackets.
    const left = node.left.type === 'prefixed' ? `(${nodeText(node.left)})` : nodeText(node.left);
    const right = node.right.type === 'clause' ? nodeText(node.right) : `(${nodeText(node.right)})`;
    return `${left} ${node.by}${modifiersText(node.modifiers)} ${right}`;
  }
  const { index, relation, term } = node;
  const written = quotedTerm(term);
  return relation === null
    ? written
    : `${word(index)} ${relation.name}${modifiersText(relation.modifiers)} ${written}`;
}

const modifiersText = (modifiers: readonly CqlModifier[]): string =>
  modifiers
    .map((m) => `/${word(m.name)}${m.value === '' && m.sign === '' ? '' : `${m.sign}${word(m.value)}`}`)
    .join('');

/** What may stand without quotation marks (charString1 of the grammar), where it is no word of the language. */
const BARE = /^[^\s()=<>"/\\]+$/;
const KEPT = /^(and|or|not|prox|sortby)$/i;
const word = (text: string): string => (BARE.test(text) && !KEPT.test(text) ? text : quotedTerm(text));
const quotedTerm = (term: string): string => `"${term}"`;
