import {
  copySearchBody,
  headingSearchBody,
  holdingSearchBody,
  searchBody,
  type CountedSearch,
  type Person,
} from '@osier/contract';
import type { SavedOf, SavedSearch } from '@osier/core/find';
import { ValidationError } from 'yup';
import { facetsOf, foundBy } from '../catalogue/found';
import { countUpTo } from '../catalogue/queries.found';
import { countOfHoldings } from '../copies/holding-list';
import { copiesFound } from '../copies/list';
import { countCopies } from '../copies/queries.list';
import { countOfHeadings } from '../headings/headings';
import { ProblemError } from '../http/problem';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { searchesOf } from './searches';

/** Of more it is only told that there are. */
const MOST_COUNTED = 10_000;
/** So many are shown, so that Today stays a page. */
const MOST_SHOWN = 20;

/** The searches that Today shows to a person, with how much each finds now. */
export async function countedSearches(
  { store }: Services,
  person: Person,
  signal: AbortSignal,
): Promise<CountedSearch[]> {
  const shown = (await searchesOf(store, person)).filter((s) => s.value.onToday).slice(0, MOST_SHOWN);
  const counted: CountedSearch[] = [];
  for (const { id, value } of shown) {
    const { name, of, search } = value;
    counted.push({ ...{ id, name, of, search }, ...(await countOf(store, value, signal)) });
  }
  return counted;
}

async function countOf(
  store: Store,
  { of, search }: SavedSearch,
  signal: AbortSignal,
): Promise<Pick<CountedSearch, 'n' | 'isMore' | 'problem'>> {
  try {
    const n = await COUNTS[of](store, search, signal);
    return { n: Math.min(n, MOST_COUNTED), isMore: n > MOST_COUNTED, problem: '' };
  } catch (error) {
    // What it asks for may have gone since: a pile, or a branch. The search itself stays.
    if (error instanceof ProblemError || error instanceof ValidationError)
      return { n: null, isMore: false, problem: error.message };
    throw error;
  }
}

async function records(store: Store, search: SavedSearch['search'], signal: AbortSignal): Promise<number> {
  const body = searchBody.cast(search);
  await searchBody.validate(body);
  const found = await foundBy(store, body, signal);
  const { total, isMore } = await countUpTo(store, found, facetsOf(body), MOST_COUNTED);
  return isMore ? MOST_COUNTED + 1 : total;
}

async function copies(store: Store, search: SavedSearch['search']): Promise<number> {
  const body = copySearchBody.cast(search);
  await copySearchBody.validate(body);
  return countCopies(store, await copiesFound(store, body), MOST_COUNTED);
}

/** How each list is counted, to one more than is told. */
const COUNTS: Readonly<
  Record<SavedOf, (store: Store, search: SavedSearch['search'], signal: AbortSignal) => Promise<number>>
> = {
  record: records,
  copy: copies,
  holding: async (store, search) =>
    countOfHoldings(store, await holdingSearchBody.validate(search), MOST_COUNTED),
  heading: async (store, search) =>
    countOfHeadings(store, await headingSearchBody.validate(search), MOST_COUNTED),
};
