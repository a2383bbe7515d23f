import { rollBody, rollChangeBody, sheetBody, sheetChangeBody, versionBody } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { changeRoll, keepRoll, listRolls, removeRoll } from './rolls';
import { changeSheet, keepSheet, listSheets, removeSheet } from './sheets';

/** Supplier sheets and label rolls. */
export function supplierRoutes(services: Services): Route[] {
  const permission = 'set up' as const;
  return [
    route({
      method: 'get',
      path: '/supplier-sheets',
      summary: 'The supplier sheets',
      permission: 'look',
      work: () => listSheets(services),
    }),
    route({
      method: 'post',
      path: '/supplier-sheets',
      summary: 'Make a supplier sheet',
      permission,
      body: sheetBody,
      work: ({ person, body }) => keepSheet(services, person.id, body),
    }),
    route({
      method: 'put',
      path: '/supplier-sheets/:id',
      summary: 'Change a supplier sheet',
      permission,
      body: sheetChangeBody,
      work: ({ id, person, body }) => changeSheet(services, person.id, id(), body),
    }),
    route({
      method: 'post',
      path: '/supplier-sheets/:id/remove',
      summary: 'Take a supplier sheet away',
      permission,
      body: versionBody,
      work: ({ id, person, body }) => removeSheet(services, person.id, id(), body.version),
    }),
    route({
      method: 'get',
      path: '/label-rolls',
      summary: 'The label rolls and how much of each is used',
      permission: 'look',
      work: () => listRolls(services),
    }),
    route({
      method: 'post',
      path: '/label-rolls',
      summary: 'Make a label roll',
      permission,
      body: rollBody,
      work: ({ person, body }) => keepRoll(services, person.id, body),
    }),
    route({
      method: 'put',
      path: '/label-rolls/:id',
      summary: 'Change a label roll',
      permission,
      body: rollChangeBody,
      work: ({ id, person, body }) => changeRoll(services, person.id, id(), body),
    }),
    route({
      method: 'post',
      path: '/label-rolls/:id/remove',
      summary: 'Take a label roll away',
      permission,
      body: versionBody,
      work: ({ id, person, body }) => removeRoll(services, person.id, id(), body.version),
    }),
  ];
}
