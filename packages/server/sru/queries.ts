import type { Ordering } from '@osier/core/find';
import type { ScanTerm } from '@osier/core/sru';
import type { IdQuery } from '../catalogue/queries.found';
import { orderedBy } from '../catalogue/queries.pages';
import type { Store } from '../store/store';

/** Records that a search is counted up to. */
export const MOST_COUNTED = 100_000;

/** How many records a query gives, counted to one more than `MOST_COUNTED`. */
export const countForOthers = async (store: Store, { sql, params }: IdQuery): Promise<number> =>
  (await store.row<{ n: number }>(
    `SELECT COUNT(*) AS n FROM (SELECT 1 FROM (${sql}) LIMIT ${MOST_COUNTED + 1})`,
    { ...params },
  ))!.n;

/** The numbers of some of the records that a query gives, in the order that it asks for, else in their own. */
export const pageForOthers = async (
  store: Store,
  { sql, params }: IdQuery,
  order: Ordering | null,
  { skip, atMost }: { readonly skip: number; readonly atMost: number },
): Promise<number[]> =>
  (
    await store.rows<{ id: number }>(
      `SELECT r.id FROM (${sql}) f CROSS JOIN record_rows r ON r.id = f.id ORDER BY ${order ? orderedBy(order) : 'r.id'} LIMIT :atMost OFFSET :skip`,
      { ...params, atMost, skip },
    )
  ).map((r) => r.id);

/** Lists of terms by where they are kept: as they are filed, and how they are shown. */
const LISTS: Readonly<Record<string, { readonly filed: string; readonly shown: string }>> = {
  title: { filed: 'sort', shown: 'title' },
  name: { filed: 'filing_name', shown: 'author' },
  year: { filed: 'year', shown: 'year' },
};

/** Terms of a list from a place on, or those before it (the nearest first); of records that the public sees. */
export function termsOf(
  store: Store,
  list: string,
  which: { readonly from: string; readonly goes: 'on' | 'behind' | 'back'; readonly atMost: number },
): Promise<ScanTerm[]> {
  const { filed, shown } = LISTS[list]!;
  const sign = which.goes === 'on' ? '>=' : which.goes === 'behind' ? '>' : '<';
  return store.rows<ScanTerm>(
    `SELECT ${filed} AS value, COUNT(*) AS count, MIN(${shown}) AS shown FROM record_rows
      WHERE ${filed} ${sign} :from AND ${filed} <> '' AND ${shown} <> '' AND id NOT IN (SELECT id FROM suppressed)
      GROUP BY ${filed} ORDER BY ${filed} ${which.goes === 'back' ? 'DESC' : 'ASC'} LIMIT :atMost`,
    { from: which.from, atMost: which.atMost },
  );
}
