import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { beginCheckingRegistry } from './check';
import { askRegistry, listRegistryNews, takeFromRegistry } from './registry';

/** The shared file of names outside: asked, taken from, and held against the headings here. */
export const registryRoutes = (services: Services): Route[] => [
  route(api.registry.ask, ({ query }) => askRegistry(services, query.name ?? '')),
  route(api.registry.take, ({ body }) => takeFromRegistry(services, body)),
  route(api.registry.news, () => listRegistryNews(services)),
  route(api.registry.check, ({ person }) => beginCheckingRegistry(services, person.id)),
];
