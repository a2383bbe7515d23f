import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { changeRoll, keepRoll, listRolls, removeRoll } from './rolls';
import { changeSheet, keepSheet, listSheets, removeSheet } from './sheets';

/** Supplier sheets and label rolls. */
export function supplierRoutes(services: Services): Route[] {
  return [
    route(api.suppliers.sheets, () => listSheets(services)),
    route(api.suppliers.keepSheet, ({ person, body }) => keepSheet(services, person.id, body)),
    route(api.suppliers.changeSheet, ({ params, person, body }) =>
      changeSheet(services, person.id, params.id, body),
    ),
    route(api.suppliers.removeSheet, ({ params, person, body }) =>
      removeSheet(services, person.id, params.id, body.version),
    ),
    route(api.suppliers.rolls, () => listRolls(services)),
    route(api.suppliers.keepRoll, ({ person, body }) => keepRoll(services, person.id, body)),
    route(api.suppliers.changeRoll, ({ params, person, body }) =>
      changeRoll(services, person.id, params.id, body),
    ),
    route(api.suppliers.removeRoll, ({ params, person, body }) =>
      removeRoll(services, person.id, params.id, body.version),
    ),
  ];
}
