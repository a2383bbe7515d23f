import {
  fillPileBody,
  pileBody,
  pileChangeBody,
  pileScansBody,
  takeOffBody,
  versionBody,
} from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { beginFillPile } from './fill';
import { changePile, listPiles, makePile, pileDetail, removePile, takeOff } from './piles';
import { scanOnto } from './scan-onto';

/** Piles: begin, fill, scan onto, change, delete. */
export function pileRoutes(services: Services): Route[] {
  const keep = 'keep piles' as const;
  return [
    route({
      method: 'get',
      path: '/piles',
      summary: 'The piles, newest first',
      permission: 'look',
      work: () => listPiles(services),
    }),
    route({
      method: 'post',
      path: '/piles',
      summary: 'Begin an empty pile of records or of copies',
      permission: keep,
      body: pileBody,
      status: 201,
      work: ({ body, person }) => makePile(services, person, body),
    }),
    route({
      method: 'post',
      path: '/piles/fill',
      summary: 'Put all that a search finds on a pile',
      permission: keep,
      body: fillPileBody,
      status: 202,
      work: ({ body, person }) => beginFillPile(services, person, body),
    }),
    route({
      method: 'get',
      path: '/piles/:id',
      summary: 'A pile with what lies on it; `after` for the next page',
      permission: 'look',
      work: ({ id, whole }) => pileDetail(services, id(), whole('after') ?? 0),
    }),
    route({
      method: 'put',
      path: '/piles/:id',
      summary: 'Change name and note of a pile',
      permission: keep,
      body: pileChangeBody,
      work: ({ id, body, person }) => changePile(services, person.id, id(), body),
    }),
    route({
      method: 'post',
      path: '/piles/:id/scans',
      summary: 'Put what is scanned on a pile',
      permission: keep,
      body: pileScansBody,
      work: ({ id, body, person }) => scanOnto(services, person.id, id(), body.codes),
    }),
    route({
      method: 'post',
      path: '/piles/:id/take-off',
      summary: 'Take records or copies off a pile',
      permission: keep,
      body: takeOffBody,
      work: ({ id, body, person }) => takeOff(services, person.id, id(), body.objects),
    }),
    route({
      method: 'post',
      path: '/piles/:id/remove',
      summary: 'Take a pile away, and nothing that lies on it',
      permission: keep,
      body: versionBody,
      work: ({ id, body, person }) => removePile(services, person.id, id(), body.version),
    }),
  ];
}
