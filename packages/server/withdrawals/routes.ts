import { api } from '@osier/contract';
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
  return [
    route(api.withdrawals.lists, () => listWithdrawals(services)),
    route(api.withdrawals.start, ({ body, person }) => startList(services, person, body)),
    route(api.withdrawals.read, ({ params }) => withdrawalList(services, params.id)),
    route(api.withdrawals.scan, async ({ params, body, person }) => {
      const check = async (inside: Store) => void (await openList(inside, params.id));
      const scans = { purpose: 'withdrawal', work: params.id, person: person.id, raw: body.codes } as const;
      return { added: (await addScans(store, { ...scans, from: null, check })).fresh };
    }),
    route(api.withdrawals.takeOff, async ({ params }) => {
      await openList(store, params.id);
      await removeScan(store, 'withdrawal', params.id, params.scan);
      return { removed: 1 };
    }),
    route(api.withdrawals.reviewWithdraw, ({ params, body, person }) =>
      reviewWithdrawal(services, params.id, body.copies, person.name),
    ),
    route(api.withdrawals.withdraw, ({ params, body, person }) =>
      withdraw(services, person, params.id, body.copies, body.token),
    ),
    route(api.withdrawals.register, ({ query }) => register(services, query.before ?? null)),
  ];
}
