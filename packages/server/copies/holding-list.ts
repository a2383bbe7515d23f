import type { HoldingList, HoldingSearch } from '@osier/contract';
import { isPlan, planOfTyped } from '@osier/core/find';
import { mustBeSearchable } from '../catalogue/searchable';
import { cursorOf, placeIn } from '../http/cursor';
import { wrong } from '../http/problem';
import type { Services } from '../services';
import type { Store } from '../store/store';
import {
  countHoldings,
  holdingsWhere,
  pageOfHoldings,
  type AfterHolding,
  type HoldingQuery,
} from './queries.holdings';
import { isUnread, leadsToFew } from './queries.list';

const PAGE = 100;
/** Of more it is only told that there are. */
const MOST_COUNTED = 10_000;

async function holdingsFound(store: Store, { q, ...place }: HoldingSearch): Promise<HoldingQuery> {
  const asked = planOfTyped(q);
  if (!isPlan(asked)) throw wrong('q', asked.problem);
  const plan = await mustBeSearchable(store, asked);
  return holdingsWhere(plan, place, await leadsToFew(store, plan));
}

/** How many holdings a search finds, counted to one more than `most`; 422 for a query that cannot be answered. */
export const countOfHoldings = async (store: Store, search: HoldingSearch, most: number): Promise<number> =>
  countHoldings(store, await holdingsFound(store, search), most);

/** A page of the holdings that words or a query find; 422 for a query that cannot be answered. */
export async function listHoldings(
  { store }: Services,
  search: HoldingSearch,
  after: string | undefined,
): Promise<HoldingList> {
  const found = await holdingsFound(store, search);
  const [total, placed] = await Promise.all([
    countHoldings(store, found, MOST_COUNTED),
    pageOfHoldings(store, found, { after: placeIn<AfterHolding>(after, ['', 0, 0]), atMost: PAGE + 1 }),
  ]);
  const last = placed[PAGE - 1];
  return {
    total: Math.min(total, MOST_COUNTED),
    isMore: total > MOST_COUNTED,
    rows: placed.slice(0, PAGE).map(({ shelfKey, ...row }) => ({ ...row, isUnread: isUnread({ shelfKey }) })),
    next: placed.length > PAGE && last ? cursorOf([last.shelfKey, last.record, last.id]) : null,
  };
}
