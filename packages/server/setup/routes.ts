import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { saveHouse, saveLists, setUp } from './setup';
import { tryBarcodes } from './try-barcodes';

/** Code lists and house rules. */
export const setupRoutes = (services: Services): Route[] => [
  route(api.setup.read, () => setUp(services)),
  route(api.setup.saveLists, ({ body, person }) => saveLists(services, person.id, body)),
  route(api.setup.saveHouse, ({ body, person }) => saveHouse(services, person.id, body)),
  route(api.setup.tryBarcodes, ({ body, left }) => tryBarcodes(services, body.barcodes, left())),
];
