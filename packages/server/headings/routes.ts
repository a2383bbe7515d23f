import { distinctBody, mergeBody, mergeReviewBody } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { headingDetail, keepApart, listHeadings, lookAlikeList, merge, reviewMerge } from './headings';

/** Headings: list, look-alikes, merge, keep apart. */
export const headingRoutes = (services: Services): Route[] => [
  route({
    method: 'get',
    path: '/headings',
    summary: 'Headings by words, alphabetically',
    permission: 'look',
    work: ({ query, whole }) => listHeadings(services, query.q ?? '', query.kind, whole('after') ?? 0),
  }),
  route({
    method: 'get',
    path: '/headings/look-alikes',
    summary: 'Groups of personal headings that look alike, a page from `after` on',
    permission: 'look',
    work: ({ query }) => lookAlikeList(services, query.after ?? ''),
  }),
  route({
    method: 'get',
    path: '/headings/:id',
    summary: 'A heading, its see-froms and the records that use it',
    permission: 'look',
    work: ({ id }) => headingDetail(services, id()),
  }),
  route({
    method: 'post',
    path: '/headings/merge/review',
    summary: 'What a merge would change',
    permission: 'merge headings',
    body: mergeReviewBody,
    work: ({ body }) => reviewMerge(services, body.kept, body.lost, body.from),
  }),
  route({
    method: 'post',
    path: '/headings/merge',
    summary: 'Merge headings into one',
    permission: 'merge headings',
    body: mergeBody,
    work: ({ body, person }) => merge(services, person.id, body.kept, body.lost),
  }),
  route({
    method: 'post',
    path: '/headings/distinct',
    summary: 'Remember that two headings are two people',
    permission: 'merge headings',
    body: distinctBody,
    work: ({ body, person }) => keepApart(services, person.id, body.a, body.b),
  }),
];
