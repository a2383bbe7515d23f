import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import { sendPieces } from '../http/send-pieces';
import type { Services } from '../services';
import { beginClosing, reviewClose } from './close';
import { scansByTime } from './queries';
import { exportLines, keptReport } from './report';
import { scanQueue } from './scan-queue';
import { scanInto, undoScan } from './scan';
import { shelfAhead } from './shelf-ahead';
import { loadScans, takeScanFile } from './scan-file';
import { reviewSettle, settle } from './settle';
import { listStocktakes, reviewStretch, startStocktake } from './stocktake';
import { findingPage, outcomePage, shelfPage, spinesOfPart, stocktakeDetail, stripOf } from './view';

/** Stocktakes: start, scan, look, settle, close. */
export function stocktakeRoutes(services: Services): Route[] {
  const { store } = services;
  const scanning = { keep: scanQueue(store), ahead: shelfAhead(store) };
  return [
    route(api.stocktakes.list, () => listStocktakes(services)),
    route(api.stocktakes.reviewStretch, ({ body }) => reviewStretch(services, body)),
    route(api.stocktakes.start, ({ body, person }) => startStocktake(services, person.id, body)),
    route(api.stocktakes.read, ({ params }) => stocktakeDetail(services, params.id)),
    route(api.stocktakes.findings, ({ params, query }) =>
      findingPage(store, params.id, query.kind ?? 'missing', query.after),
    ),
    route(api.stocktakes.copies, ({ params, query }) =>
      outcomePage(store, params.id, query.outcome ?? 'missing', query.after),
    ),
    route(api.stocktakes.file, ({ params, query, res }) =>
      sendPieces(
        res,
        `stocktake-${params.id}.csv`,
        'text/csv; charset=utf-8',
        exportLines(store.aside, params.id, query.of || 'copies'),
      ),
    ),
    route(api.stocktakes.report, ({ params }) => keptReport(store.aside, params.id)),
    route(api.stocktakes.strip, ({ params }) => stripOf(store, params.id)),
    route(api.stocktakes.spines, ({ params, query }) =>
      spinesOfPart(store, params.id, query.run ?? 0, query.part ?? 0),
    ),
    route(api.stocktakes.shelf, ({ params, query }) => shelfPage(store.aside, params.id, query.after)),
    route(api.stocktakes.pace, ({ params }) => scansByTime(store, params.id)),
    route(api.stocktakes.scan, ({ params, body, person }) =>
      scanInto(services, scanning, person.id, params.id, body),
    ),
    route(api.stocktakes.undoScan, ({ params, body, person }) =>
      undoScan(services, person.id, params.id, body),
    ),
    route(api.stocktakes.load, ({ params, body: { codes, name, on, location, again }, person }) =>
      loadScans(services, person.id, params.id, { name: name || 'scanner file', on, location, again }, codes),
    ),
    route(api.stocktakes.loadFile, ({ params, person, query: { name, on, location, again }, req }) =>
      takeScanFile(
        services,
        person.id,
        params.id,
        {
          name: (name || 'scanner file').slice(0, 200),
          on: on ?? '',
          location: location ?? '',
          again: again === 'yes',
        },
        req,
      ),
    ),
    route(api.stocktakes.reviewSettle, ({ params, body: { from, ...body } }) =>
      reviewSettle(services, params.id, body, from),
    ),
    route(api.stocktakes.settle, ({ params, body, person }) => settle(services, person, params.id, body)),
    route(api.stocktakes.reviewClose, ({ params }) => reviewClose(services, params.id)),
    route(api.stocktakes.close, ({ params, body, person }) =>
      beginClosing(services, person.id, params.id, body.token),
    ),
  ];
}
