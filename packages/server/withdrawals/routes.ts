import { codesBody, withdrawalListBody, withdrawBody } from '@osier/contract';
import { route, type Route } from '../http/route';
import { addScans, removeScan } from '../scanner/scans';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { listWithdrawals, openList, reviewWithdrawal, startList, withdraw } from './withdrawals';
import { register } from './register';
import { withdrawalList } from './weighed';

/** Withdrawal lists and the register. */
export function withdrawalRoutes(services: Services): Route[] {
  const { store } = services;
  const prepare = 'prepare withdrawals' as const;
  return [
    route({
      method: 'get',
      path: '/withdrawal-lists',
      summary: 'Withdrawal lists, newest first',
      permission: 'look',
      work: () => listWithdrawals(services),
    }),
    route({
      method: 'post',
      path: '/withdrawal-lists',
      summary: 'Start a withdrawal list',
      permission: prepare,
      body: withdrawalListBody,
      status: 201,
      work: ({ body, person }) => startList(services, person, body),
    }),
    route({
      method: 'get',
      path: '/withdrawal-lists/:id',
      summary: 'A list with a verdict for every scan',
      permission: 'look',
      work: ({ id }) => withdrawalList(services, id()),
    }),
    route({
      method: 'post',
      path: '/withdrawal-lists/:id/scans',
      summary: 'Add scanned or pasted barcodes',
      permission: prepare,
      body: codesBody,
      work: async ({ id, body, person }) => {
        const check = async (inside: Store) => void (await openList(inside, id()));
        const scans = { purpose: 'withdrawal', work: id(), person: person.id, raw: body.codes } as const;
        return { added: (await addScans(store, { ...scans, from: null, check })).fresh };
      },
    }),
    route({
      method: 'delete',
      path: '/withdrawal-lists/:id/scans/:scan',
      summary: 'Take a scan off the list',
      permission: prepare,
      work: async ({ id }) => {
        await openList(store, id());
        await removeScan(store, 'withdrawal', id(), id('scan'));
        return { removed: 1 };
      },
    }),
    route({
      method: 'post',
      path: '/withdrawal-lists/:id/withdraw/review',
      summary: 'What withdrawing these copies would do',
      permission: prepare,
      body: withdrawBody,
      work: ({ id, body, person }) => reviewWithdrawal(services, id(), body.copies, person.name),
    }),
    route({
      method: 'post',
      path: '/withdrawal-lists/:id/withdraw',
      summary: 'Withdraw copies of the list',
      permission: 'confirm withdrawals',
      body: withdrawBody,
      work: ({ id, body, person }) => withdraw(services, person, id(), body.copies, body.token),
    }),
    route({
      method: 'get',
      path: '/register',
      summary: 'The register of withdrawn copies',
      permission: 'look',
      work: ({ whole }) => register(services, whole('before') ?? null),
    }),
  ];
}
