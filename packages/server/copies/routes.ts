import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { addCopy, addHolding, changeCopy, lookAtBarcode } from './copies';

/** Holdings and copies: add, change, look at a barcode. */
export const copyRoutes = (services: Services): Route[] => [
  route(api.copies.addHolding, ({ body, person }) => addHolding(services, person.id, body)),
  route(api.copies.barcode, ({ params }) => lookAtBarcode(services, params.barcode)),
  route(api.copies.add, ({ body, person }) => addCopy(services, person.id, body)),
  route(api.copies.change, ({ params, body, person }) =>
    changeCopy(services, person.id, params.id, body.version, body),
  ),
];
