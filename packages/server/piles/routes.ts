import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { beginFillPile } from './fill';
import { changePile, listPiles, makePile, pileDetail, removePile, takeOff } from './piles';
import { scanOnto } from './scan-onto';

/** Piles: begin, fill, scan onto, change, delete. */
export function pileRoutes(services: Services): Route[] {
  return [
    route(api.piles.list, () => listPiles(services)),
    route(api.piles.make, ({ body, person }) => makePile(services, person, body)),
    route(api.piles.fill, ({ body, person }) => beginFillPile(services, person, body)),
    route(api.piles.read, ({ params, query }) => pileDetail(services, params.id, query.after)),
    route(api.piles.change, ({ params, body, person }) => changePile(services, person.id, params.id, body)),
    route(api.piles.scan, ({ params, body, person }) => scanOnto(services, person.id, params.id, body.codes)),
    route(api.piles.takeOff, ({ params, body, person }) =>
      takeOff(services, person.id, params.id, body.objects),
    ),
    route(api.piles.remove, ({ params, body, person }) =>
      removePile(services, person.id, params.id, body.version),
    ),
  ];
}
