import type { CopyList, CopyOrder, CopySearch } from '@osier/contract';
import { isPlan, planOfTyped } from '@osier/core/find';
import { mustBeSearchable } from '../catalogue/searchable';
import { cursorOf, placeIn } from '../http/cursor';
import { wrong } from '../http/problem';
import type { Services } from '../services';
import type { Store } from '../store/store';
import {
  copiesWhere,
  countCopies,
  isUnread,
  leadsToFew,
  pageOfCopies,
  type AfterCopy,
  type CopyQuery,
} from './queries.list';

const PAGE = 100;
/** Of more it is only told that there are. */
const MOST_COUNTED = 10_000;

/** The conditions of a search for copies; 422 where it names a pile that is not there, or one of records, or its query cannot be answered. */
export async function copiesFound(store: Store, search: CopySearch): Promise<CopyQuery> {
  if (search.pile) {
    const pile = await store.read('pile', search.pile);
    if (!pile) throw wrong('pile', `There is no pile ${search.pile}.`);
    if (pile.value.of !== 'copy') throw wrong('pile', 'This pile is of records.');
  }
  const plan = planOfTyped(search.q);
  if (!isPlan(plan)) throw wrong('q', plan.problem);
  await mustBeSearchable(store, plan);
  return copiesWhere(search, plan, await leadsToFew(store, plan));
}

/** A page of the copies that are found. */
export async function listCopies(
  { store }: Services,
  search: CopySearch,
  {
    sort,
    down,
    after,
  }: { readonly sort: CopyOrder; readonly down: boolean; readonly after: string | undefined },
): Promise<CopyList> {
  const found = await copiesFound(store, search);
  const form: AfterCopy = [sort === 'price' ? 0 : '', 0];
  const page = { sort, down, after: placeIn<AfterCopy>(after, form), atMost: PAGE + 1 };
  const [total, placed] = await Promise.all([
    countCopies(store, found, MOST_COUNTED),
    pageOfCopies(store, found, page),
  ]);
  const last = placed[PAGE - 1];
  return {
    total: Math.min(total, MOST_COUNTED),
    isMore: total > MOST_COUNTED,
    rows: placed.slice(0, PAGE).map(({ sorted: _, shelfKey, ...row }) => ({
      ...row,
      isUnread: isUnread({ shelfKey }),
    })),
    next: placed.length > PAGE && last ? cursorOf([last.sorted, last.id]) : null,
  };
}
