import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { scansByTime } from './queries';
import { stocktakeDetail } from './reconciled';
import { scanInto } from './scan';
import { takeScanFile } from './scan-file';
import { reviewSettle, settle } from './settle';
import { closeStocktake, listStocktakes, loadScans, startStocktake } from './stocktake';

/** Stocktakes: start, scan, look, settle, close. */
export function stocktakeRoutes(services: Services): Route[] {
  return [
    route(api.stocktakes.list, () => listStocktakes(services)),
    route(api.stocktakes.start, ({ body, person }) => startStocktake(services, person.id, body)),
    route(api.stocktakes.read, ({ params }) => stocktakeDetail(services, params.id)),
    route(api.stocktakes.pace, ({ params }) => scansByTime(services.store, params.id)),
    route(api.stocktakes.scan, ({ params, body, person }) => scanInto(services, person.id, params.id, body)),
    route(api.stocktakes.load, ({ params, body, person }) =>
      loadScans(services, person.id, params.id, body.name || 'scanner file', body.codes),
    ),
    route(api.stocktakes.loadFile, ({ params, person, query, req }) =>
      takeScanFile(services, person.id, params.id, (query.name || 'scanner file').slice(0, 200), req),
    ),
    route(api.stocktakes.reviewSettle, ({ params, body }) =>
      reviewSettle(services, params.id, body.items, body.location),
    ),
    route(api.stocktakes.settle, ({ params, body, person }) =>
      settle(services, person.id, params.id, body.items, body.location, body.token),
    ),
    route(api.stocktakes.close, ({ params, person }) => closeStocktake(services, person.id, params.id)),
  ];
}
