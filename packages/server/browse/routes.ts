import { api, type BrowseList, type BrowsePage } from '@osier/contract';
import { cursorOf, placeIn } from '../http/cursor';
import { wrong } from '../http/problem';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { LISTS, type Entry } from './lists';

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
  const list = LISTS[name];
  const goes = ahead ? 'ahead' : behind ? 'behind' : 'on';
  const place = placeIn(ahead ?? behind, list.first) ?? (from.trim() === '' ? list.first : list.placeOf(from));
  const found = await list.from(store, place, { goes, atMost: PAGE + 1 });
  const pages = placesOf(found);
  const isMore = pages > PAGE;
  const page = isMore ? found.slice(0, cut(found)) : found;
  const rows = goes === 'ahead' ? [...page].reverse() : page;
  const [first, last] = [rows[0], rows.at(-1)];
  const isBefore =
    goes === 'ahead' ? isMore : (await list.from(store, first?.place ?? place, { goes: 'ahead', atMost: 1 })).length > 0;
  return {
    rows: rows.map((r) => ({ ...r, place: cursorOf(r.place) })),
    before: isBefore ? cursorOf(first?.place ?? place) : null,
    next: last && (goes === 'ahead' || isMore) ? cursorOf(last.place) : null,
  };
}

const same = (a: Entry, b: Entry | undefined): boolean =>
  b !== undefined && cursorOf(a.place) === cursorOf(b.place);
/** How many places there are; entries of one place follow one another. */
const placesOf = (entries: readonly Entry[]): number =>
  entries.filter((e, i) => !same(e, entries[i - 1])).length;
/** Where the page ends: before the last place, which begins the next one. */
function cut(entries: readonly Entry[]): number {
  const last = entries.at(-1)!;
  return entries.findIndex((e) => same(e, last));
}

/** Lists in their order, from anywhere, both ways. */
export const browseRoutes = (services: Services): Route[] => [
  route(api.browse.page, ({ params, query }) => browse(services, params.list, query)),
];
