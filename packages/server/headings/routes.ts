import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { headingEvidence } from './evidence';
import { headingDetail, keepApart, listHeadings, lookAlikeList, merge, reviewMerge } from './headings';

/** Headings: list, look-alikes, merge, keep apart. */
export const headingRoutes = (services: Services): Route[] => [
  route(api.headings.list, ({ query }) => listHeadings(services, query.q ?? '', query.kind, query.after)),
  route(api.headings.lookAlikes, ({ query }) => lookAlikeList(services, query.after)),
  route(api.headings.evidence, ({ query }) =>
    headingEvidence(services, (query.ids ?? '').split(',').map(Number)),
  ),
  route(api.headings.read, ({ params }) => headingDetail(services, params.id)),
  route(api.headings.reviewMerge, ({ body }) => reviewMerge(services, body.kept, body.lost, body.from)),
  route(api.headings.merge, ({ body, person }) =>
    merge(services, person.id, body.kept, body.lost, body.token),
  ),
  route(api.headings.keepApart, ({ body, person }) => keepApart(services, person.id, body.a, body.b)),
];
