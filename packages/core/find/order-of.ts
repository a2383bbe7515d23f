import type { CqlSortKey } from '../query';
import { isCql, parseCql } from '../query';
import { CODE, Unanswerable } from './unanswerable';

/** What records can be sorted by: filed title, name of the first entry, year, first call number, when added, when changed last. */
export const FIND_ORDERS = ['title', 'name', 'year', 'callnumber', 'added', 'changed'] as const;
export type FindOrder = (typeof FIND_ORDERS)[number];

/** An order of records, and whether the last comes first. */
export interface Ordering {
  readonly by: FindOrder;
  readonly descends: boolean;
}

const OTHER_NAMES: Readonly<Record<string, FindOrder>> = {
  'dc.title': 'title',
  'dc.creator': 'name',
  author: 'name',
  'dc.date': 'year',
  date: 'year',
  'rec.creationdate': 'added',
  'rec.lastmodificationdate': 'changed',
};

/** The order that the sort keys of a query ask for; null where there are none. Throws `Unanswerable` for what there is not. */
export function orderOf(sort: readonly CqlSortKey[]): Ordering | null {
  const [first, second] = sort;
  if (!first) return null;
  if (second)
    throw new Unanswerable(
      CODE.sort,
      'A list is sorted by one key: sortBy year/sort.descending.',
      second.index,
    );
  const name = first.index.toLowerCase();
  const by =
    FIND_ORDERS.find((o) => o === name) ?? (Object.hasOwn(OTHER_NAMES, name) ? OTHER_NAMES[name] : undefined);
  if (!by)
    throw new Unanswerable(
      CODE.sort,
      `A list cannot be sorted by “${first.index}”; there is ${FIND_ORDERS.join(', ')}.`,
      first.index,
    );
  // Sort context set 1.0: ascending where nothing is said.
  let descends = false;
  for (const { name: modifier } of first.modifiers) {
    const how = modifier.toLowerCase().replace(/^sort\./, '');
    if (how !== 'ascending' && how !== 'descending')
      throw new Unanswerable(
        CODE.sort,
        `“/${modifier}” is not understood here; there is /sort.ascending and /sort.descending.`,
        modifier,
      );
    descends = how === 'descending';
  }
  return { by, descends };
}

/** The order that a text which is a query asks for; null where it asks for none, or is no query that can be answered. */
export function orderOfText(text: string): Ordering | null {
  const read = parseCql(text);
  if (!isCql(read)) return null;
  try {
    return orderOf(read.sort);
  } catch (error) {
    if (error instanceof Unanswerable) return null;
    throw error;
  }
}
