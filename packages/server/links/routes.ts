import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { beginTryingLinks, linksOfRecord, listLinks, tryLinksOfRecord } from './links';

/** Links of records: what was found at them, trying them. */
export const linkRoutes = (services: Services): Route[] => [
  route(api.links.ofRecord, ({ params }) => linksOfRecord(services, params.id)),
  route(api.links.tryRecord, ({ params }) => tryLinksOfRecord(services, params.id)),
  route(api.links.list, ({ query }) => listLinks(services, query.result, query.after)),
  route(api.links.tryAll, ({ person }) => beginTryingLinks(services, person.id)),
];
