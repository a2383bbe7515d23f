import { houseBody, listsBody } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { saveHouse, saveLists, setUp } from './setup';

/** Code lists and house rules. */
export const setupRoutes = (services: Services): Route[] => [
  route({
    method: 'get',
    path: '/set-up',
    summary: 'Code lists, house rules, people, checks',
    permission: 'look',
    work: () => setUp(services),
  }),
  route({
    method: 'put',
    path: '/set-up/lists',
    summary: 'Save the code lists',
    permission: 'set up',
    body: listsBody,
    work: ({ body, person }) => saveLists(services, person.id, body),
  }),
  route({
    method: 'put',
    path: '/set-up/house',
    summary: 'Save the house rules',
    permission: 'set up',
    body: houseBody,
    work: ({ body, person }) => saveHouse(services, person.id, body),
  }),
];
