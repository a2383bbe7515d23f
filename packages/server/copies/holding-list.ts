import type { HoldingList } from '@osier/contract';
import { isPlan, planOfTyped } from '@osier/core/find';
import { mustBeSearchable } from '../catalogue/searchable';
import { cursorOf, placeIn } from '../http/cursor';
import { wrong } from '../http/problem';
import type { Services } from '../services';
import { countHoldings, holdingsWhere, pageOfHoldings, type AfterHolding } from './queries.holdings';
import { isUnread, leadsToFew } from './queries.list';

const PAGE = 100;
/** Of more it is only told that there are. */
const MOST_COUNTED = 10_000;

/** Which holdings are listed, and where the page begins. */
interface HoldingsAsked {
  readonly q?: string;
  readonly branch?: string;
  readonly location?: string;
  readonly after?: string | undefined;
}

/** A page of the holdings that words or a query find; 422 for a query that cannot be answered. */
export async function listHoldings(
  { store }: Services,
  { q = '', branch = '', location = '', after }: HoldingsAsked,
): Promise<HoldingList> {
  const plan = planOfTyped(q);
  if (!isPlan(plan)) throw wrong('q', plan.problem);
  await mustBeSearchable(store, plan);
  const found = holdingsWhere(plan, { branch, location }, await leadsToFew(store, plan));
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
