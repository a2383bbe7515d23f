import { copyBody, copyChangeBody, holdingBody } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { addCopy, addHolding, changeCopy, lookAtBarcode } from './copies';

/** Holdings and copies: add, change, look at a barcode. */
export const copyRoutes = (services: Services): Route[] => [
  route({
    method: 'post',
    path: '/holdings',
    summary: 'Add a holding to a record',
    permission: 'edit copies',
    body: holdingBody,
    status: 201,
    work: ({ body, person }) => addHolding(services, person.id, body),
  }),
  route({
    method: 'get',
    path: '/barcodes/:barcode',
    summary: 'Whether a barcode is right and free',
    permission: 'look',
    work: ({ params }) => lookAtBarcode(services, params.barcode ?? ''),
  }),
  route({
    method: 'post',
    path: '/copies',
    summary: 'Add a copy to a holding',
    permission: 'edit copies',
    body: copyBody,
    status: 201,
    work: ({ body, person }) => addCopy(services, person.id, body),
  }),
  route({
    method: 'put',
    path: '/copies/:id',
    summary: 'Change status or note of a copy',
    permission: 'edit copies',
    body: copyChangeBody,
    work: ({ id, body, person }) => changeCopy(services, person.id, id(), body.version, body),
  }),
];
