import type { Changed } from '@osier/contract';
import type { Kind } from '@osier/core/kinds';
import type { Query } from '@tanstack/react-query';

/** Which kinds an answer is made of, by the beginning of its path; the longest that fits decides. */
const MADE_OF: readonly (readonly [path: string, kinds: readonly Kind[] | 'any'])[] = [
  ['/today', 'any'],
  ['/daybook', 'any'],
  ['/disputed', 'any'],
  ['/records', ['record', 'suppressed', 'holding', 'copy', 'heading', 'piled']],
  ['/browse', ['record', 'heading', 'holding', 'copy']],
  ['/searches', ['savedsearch']],
  // How much a search finds may be changed by anything.
  ['/searches/counted', 'any'],
  ['/web-links', ['record']],
  ['/headings', ['heading', 'distinct', 'record']],
  ['/registry', ['heading', 'house']],
  ['/deliveries', ['delivery', 'incoming', 'fields']],
  ['/recipes', ['recipe']],
  ['/starters', ['starter']],
  ['/neighbours', ['neighbour']],
  ['/brief-records', ['record', 'holding', 'copy', 'neighbour', 'house']],
  ['/book-lists', ['record', 'delivery']],
  ['/neighbours/lookup', ['neighbour', 'house', 'record', 'holding', 'copy']],
  ['complete', ['heading', 'record']],
  ['/set-up', ['house', 'lists']],
  ['/local-fields', ['localfield', 'copy']],
  ['/label-sheets', ['labelsheet']],
  ['/label-rolls', ['roll', 'copy', 'withdrawn']],
  ['/supplier-sheets', ['sheet']],
  ['/loan-figures', []],
  ['/weeding', ['copy', 'holding', 'record']],
  ['/piles', ['pile', 'piled', 'record', 'holding', 'copy']],
  ['/withdrawal-lists', ['withdrawlist', 'copy', 'holding', 'record', 'withdrawn']],
  ['/register', ['withdrawn']],
  ['/stocktakes', ['stocktake', 'scanbatch', 'settled', 'copy', 'holding']],
  ['/welcome', []],
  ['/outside', []],
  ['/format', []],
];

/** Paths that show one object of a kind: what changed others does not change them, unless something that hangs on it is told too. */
const ONE_OF: readonly (readonly [path: RegExp, kind: Kind, alone: readonly Kind[]])[] = [
  [/^\/headings\/(\d+)$/, 'heading', ['heading']],
  [/^\/withdrawal-lists\/(\d+)$/, 'withdrawlist', ['withdrawlist']],
  [/^\/stocktakes\/(\d+)$/, 'stocktake', ['stocktake']],
  [/^\/records\/(\d+)$/, 'record', ['record', 'suppressed', 'heading', 'piled']],
];

/** Whether what a query has read may be different after a change. What is not known to be the same is read again. */
export function isStale({ queryKey }: Pick<Query, 'queryKey'>, { kinds }: Changed): boolean {
  const path = typeof queryKey[0] === 'string' ? queryKey[0] : '';
  const entry = MADE_OF.filter(([start]) => path.startsWith(start)).sort(
    (a, b) => b[0].length - a[0].length,
  )[0];
  if (!entry || entry[1] === 'any') return true;
  const touched = entry[1].filter((kind) => kind in kinds);
  if (touched.length === 0) return false;
  for (const [pattern, kind, alone] of ONE_OF) {
    const id = pattern.exec(path)?.[1];
    if (id === undefined) continue;
    const ids = kinds[kind];
    const others = touched.some((k) => !alone.includes(k));
    return others || ids === null || (ids?.includes(Number(id)) ?? false);
  }
  return true;
}
