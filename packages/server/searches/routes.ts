import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { countedSearches } from './counted';
import { changeSearch, keepSearch, listSearches, removeSearch } from './searches';

/** Saved searches: list, count for Today, keep, change, delete. */
export const searchRoutes = (services: Services): Route[] => [
  route(api.searches.list, ({ person }) => listSearches(services, person)),
  route(api.searches.counted, ({ person, left }) => countedSearches(services, person, left())),
  route(api.searches.keep, ({ person, body }) => keepSearch(services, person, body)),
  route(api.searches.change, ({ params, person, body }) => changeSearch(services, person, params.id, body)),
  route(api.searches.remove, ({ params, person, body }) =>
    removeSearch(services, person, params.id, body.version),
  ),
];
