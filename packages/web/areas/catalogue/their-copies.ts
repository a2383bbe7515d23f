import type { SearchAnswer, SearchBody } from '@osier/contract';
import { narrowedQuery } from '@osier/core/find';
import { cqlClause, cqlText, recogniseInput } from '@osier/core/query';
import type { BarcodeRule } from '@osier/core/barcodes';

/** The copies of what a search finds, as the address of a list of copies; null for a search that copies cannot be asked by. */
export function theirCopies(
  { q, branch, status, type, ...search }: Omit<SearchBody, 'records'>,
  tookFor: SearchAnswer['tookFor'],
  rules: readonly BarcodeRule[] | undefined,
): string | null {
  const begins = queryOf(q, tookFor, rules);
  if (begins === null) return null;
  const parts: readonly (readonly [index: string, value: string | number | undefined])[] = [
    ['language', search.language],
    ['format', search.material],
    ['finding', search.finding],
    ['pile', search.pile],
    ['delivery', search.delivery],
    ['suppressed', search.suppressed],
  ];
  const query = parts.reduce(
    (text, [index, value]) => (value ? narrowedQuery(text, index, '=', String(value)) : text),
    begins,
  );
  const asked = { q: query, branch, status, type };
  const given = Object.entries(asked).flatMap(([name, value]): [string, string][] =>
    value ? [[name, value]] : [],
  );
  return `/copies/all?${new URLSearchParams(given).toString()}`;
}

/** What was typed, as a query or as words. */
function queryOf(
  q: string,
  tookFor: SearchAnswer['tookFor'],
  rules: readonly BarcodeRule[] | undefined,
): string | null {
  if (tookFor === 'query' || tookFor === 'words') return q;
  const named = recogniseInput(q, rules);
  const equal = (index: string, value: string | number) =>
    cqlText({ node: cqlClause(index, '=', String(value)), sort: [] });
  switch (named.as) {
    case 'isbn':
      return equal('isbn', named.code);
    case 'barcode':
      return equal('barcode', named.code);
    case 'record':
    case 'heading':
      return equal(named.as, named.id);
    case 'call number':
      return cqlText({ node: { ...cqlClause('callnumber', '=', ''), term: `${named.text}*` }, sort: [] });
    default:
      return null;
  }
}
