import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { entryDetail, reviewUndo, undo } from './daybook';
import { listEntries } from './entries';

/** The daybook: entries, and undoing them. */
export const daybookRoutes = (services: Services): Route[] => [
  route(api.daybook.list, ({ query, person }) =>
    listEntries(services, query, 100, query.mine === '1' ? person.id : undefined),
  ),
  route(api.daybook.read, ({ params }) => entryDetail(services, params.id)),
  route(api.daybook.reviewUndo, ({ params, body }) => reviewUndo(services, params.id, body.from)),
  route(api.daybook.undo, ({ params, person, body }) => undo(services, person, params.id, body.token)),
];
