import { cqlClause, cqlText, isCql, parseCql, type CqlNode } from '../query';
import { foldedWords } from '../text';
import { isQueryText } from './query-text';

/**
 * A search narrowed by one more condition, as a query: words become the query that they are short for, the order of a query stays. What
 * cannot be read is left as it is.
 */
export function narrowedQuery(text: string, index: string, relation: string, term: string): string {
  const more = cqlClause(index, relation, term);
  if (!isQueryText(text)) return cqlText({ node: joined(wordsNode(text), more), sort: [] });
  const read = parseCql(text);
  return isCql(read) ? cqlText({ node: joined(read.node, more), sort: read.sort }) : text;
}

const joined = (node: CqlNode | null, more: CqlNode): CqlNode =>
  node ? { type: 'joined', by: 'and', modifiers: [], left: node, right: more } : more;

/** Words as the query that they are short for: all of them, each as the beginning of one. */
function wordsNode(text: string): CqlNode | null {
  const words = foldedWords(text);
  if (words.length === 0) return null;
  const term = words.map((w) => (/^[a-z0-9]$/.test(w) ? w : `${w}*`)).join(' ');
  return { ...cqlClause('words', 'all', ''), term };
}
