import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { changeStarter, keepStarter, listStarters, removeStarter } from './starters';

/** Starters: list, keep, change, delete. */
export const starterRoutes = (services: Services): Route[] => [
  route(api.starters.list, () => listStarters(services)),
  route(api.starters.keep, ({ person, body }) => keepStarter(services, person.id, body)),
  route(api.starters.change, ({ params, person, body }) =>
    changeStarter(services, person.id, params.id, body),
  ),
  route(api.starters.remove, ({ params, person, body }) =>
    removeStarter(services, person.id, params.id, body.version),
  ),
];
