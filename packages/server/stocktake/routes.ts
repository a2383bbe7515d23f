import { codesBody, scanBody, settleBody, stocktakeBody } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { stocktakeDetail } from './reconciled';
import { scanInto } from './scan';
import { takeScanFile } from './scan-file';
import { reviewSettle, settle } from './settle';
import { closeStocktake, listStocktakes, loadScans, startStocktake } from './stocktake';

/** Stocktakes: start, scan, look, settle, close. */
export function stocktakeRoutes(services: Services): Route[] {
  return [
    route({
      method: 'get',
      path: '/stocktakes',
      summary: 'Stocktakes with their progress',
      permission: 'look',
      work: () => listStocktakes(services),
    }),
    route({
      method: 'post',
      path: '/stocktakes',
      summary: 'Start a stocktake of a stretch',
      permission: 'manage stocktakes',
      body: stocktakeBody,
      status: 201,
      work: ({ body, person }) => startStocktake(services, person.id, body),
    }),
    route({
      method: 'get',
      path: '/stocktakes/:id',
      summary: 'A stocktake: what was found, what was not, what stands wrong',
      permission: 'look',
      work: ({ id }) => stocktakeDetail(services, id()),
    }),
    route({
      method: 'post',
      path: '/stocktakes/:id/scans',
      summary: 'Add scans as they are made; what each of them is, what stands next, how far the walk is',
      permission: 'scan',
      body: scanBody,
      work: ({ id, body, person }) => scanInto(services, person.id, id(), body),
    }),
    route({
      method: 'post',
      path: '/stocktakes/:id/load',
      summary: 'Load the codes of a scanner’s file',
      permission: 'scan',
      body: codesBody,
      work: ({ id, body, person }) =>
        loadScans(services, person.id, id(), body.name || 'scanner file', body.codes),
    }),
    route({
      method: 'post',
      path: '/stocktakes/:id/load-file',
      summary: 'Load a scanner’s file of any length; the body is the file, `name` its name',
      permission: 'scan',
      status: 202,
      work: ({ id, person, query, req }) =>
        takeScanFile(services, person.id, id(), (query.name || 'scanner file').slice(0, 200), req),
    }),
    route({
      method: 'post',
      path: '/stocktakes/:id/settle/review',
      summary: 'What settling these findings would do',
      permission: 'edit copies',
      body: settleBody,
      work: ({ id, body }) => reviewSettle(services, id(), body.items, body.location),
    }),
    route({
      method: 'post',
      path: '/stocktakes/:id/settle',
      summary: 'Settle findings',
      permission: 'edit copies',
      body: settleBody,
      work: ({ id, body, person }) => settle(services, person.id, id(), body.items, body.location),
    }),
    route({
      method: 'post',
      path: '/stocktakes/:id/close',
      summary: 'Close a stocktake',
      permission: 'manage stocktakes',
      work: ({ id, person }) => closeStocktake(services, person.id, id()),
    }),
  ];
}
