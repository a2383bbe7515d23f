import { api, type BrowseList, type BrowsePage } from '@osier/contract';
import { cursorOf } from '../http/cursor';
import { wrong } from '../http/problem';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { LISTS, type BrowseEntry } from './lists';

const PAGE = 50;

/** What page of a list is wanted: from a text, or behind or ahead of a place that was given out. */
interface Wanted {
  readonly from?: string | undefined;
  readonly behind?: string | undefined;
  readonly ahead?: string | undefined;
}

async function browse(
  { store }: Services,
  name: BrowseList,
  { from = '', behind, ahead }: Wanted,
): Promise<BrowsePage> {
  if (behind && ahead) throw wrong('ahead', 'A page is behind a place or ahead of it.');
  const goes = ahead ? 'ahead' : behind ? 'behind' : 'on';
  const { prefixOrder } = (await store.house()).value;
  const at = LISTS[name].at(from, ahead ?? behind, prefixOrder);
  const found = await at.read(store, { goes, atMost: PAGE + 1 });
  const isMore = placesOf(found) > PAGE;
  const page = isMore ? found.slice(0, cut(found)) : found;
  const rows = (goes === 'ahead' ? [...page].reverse() : page).map((r) => ({
    ...r,
    place: cursorOf(r.place),
  }));
  const [first, last] = [rows[0], rows.at(-1)];
  const begin = first ? LISTS[name].at('', first.place) : at;
  const isBefore =
    goes === 'ahead' ? isMore : (await begin.read(store, { goes: 'ahead', atMost: 1 })).length > 0;
  return {
    rows,
    before: isBefore ? begin.cursor : null,
    next: last && (goes === 'ahead' || isMore) ? last.place : null,
  };
}

const same = (a: BrowseEntry, b: BrowseEntry | undefined): boolean =>
  b !== undefined && cursorOf(a.place) === cursorOf(b.place);
/** How many places there are; entries of one place follow one another. */
const placesOf = (entries: readonly BrowseEntry[]): number =>
  entries.filter((e, i) => !same(e, entries[i - 1])).length;
/** Where the page ends: before the last place, which begins the next one. */
function cut(entries: readonly BrowseEntry[]): number {
  const last = entries.at(-1)!;
  return entries.findIndex((e) => same(e, last));
}

/** Lists in their order, from anywhere, both ways. */
export const browseRoutes = (services: Services): Route[] => [
  route(api.browse.page, ({ params, query }) => browse(services, params.list, query)),
];
