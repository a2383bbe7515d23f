import { pageBody } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { entryDetail, listEntries, reviewUndo, undo } from './daybook';

/** The daybook: entries, and undoing them. */
export const daybookRoutes = (services: Services): Route[] => [
  route({
    method: 'get',
    path: '/daybook',
    summary: 'Everything that was done, newest first',
    permission: 'look',
    work: ({ whole, query, person }) =>
      listEntries(services, whole('before') ?? null, 100, query.mine === '1' ? person.id : null),
  }),
  route({
    method: 'get',
    path: '/daybook/:id',
    summary: 'One entry with its changes',
    permission: 'look',
    work: ({ id }) => entryDetail(services, id()),
  }),
  route({
    method: 'post',
    path: '/daybook/:id/undo/review',
    summary: 'What taking an entry back would do',
    permission: 'look',
    body: pageBody,
    work: ({ id, body }) => reviewUndo(services, id(), body.from),
  }),
  route({
    method: 'post',
    path: '/daybook/:id/undo',
    summary: 'Take an entry back whole',
    permission: 'look',
    work: ({ id, person }) => undo(services, person, id()),
  }),
];
