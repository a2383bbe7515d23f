import { api, may, registerQuery, weedQuery } from '@osier/contract';
import { notFound } from '../http/problem';
import { countNotices } from '../projections/loans-to-tell';
import { route, type Route } from '../http/route';
import { sendPieces } from '../http/send-pieces';
import type { Services } from '../services';
import { registerReasons } from './queries';
import { hasLoanFigures, weedCells } from './queries.weeding';
import { toPull } from './pull';
import { registerLines, registerPage } from './register';
import { restoreCopies, reviewRestore } from './restore';
import { fillList, removeRow, scanIntoList, undoLastScan } from './scan';
import { withdrawalList } from './weighed';
import { changeList, deleteList, listWithdrawals, startList } from './lists';
import { listTellings, tellUnion, unionFile, unionPage } from './union';
import { reviewWithdrawal, withdraw } from './withdraw';

/** Withdrawal lists and the register. */
export function withdrawalRoutes(services: Services): Route[] {
  const { store } = services;
  return [
    route(api.withdrawals.lists, () => listWithdrawals(services)),
    route(api.withdrawals.start, ({ body, person }) => startList(services, person, body)),
    route(api.withdrawals.read, ({ params }) => withdrawalList(services, params.id)),
    route(api.withdrawals.change, ({ params, body, person }) =>
      changeList(services, person.id, params.id, body),
    ),
    route(api.withdrawals.remove, ({ params, person }) => deleteList(services, person.id, params.id)),
    route(api.withdrawals.scan, ({ params, body, person }) =>
      scanIntoList(services, person.id, params.id, body.codes),
    ),
    route(api.withdrawals.undoScan, ({ params, person }) => undoLastScan(services, person.id, params.id)),
    route(api.withdrawals.fill, ({ params, body, person }) => fillList(services, person.id, params.id, body)),
    route(api.withdrawals.weed, async ({ query }) => ({
      hasLoans: await hasLoanFigures(store.aside),
      cells: await weedCells(store.aside, weedQuery.cast(query)),
    })),
    route(api.withdrawals.pull, ({ params }) => toPull(store, params.id)),
    route(api.withdrawals.takeOff, ({ params }) => removeRow(services, params.id, params.scan)),
    route(api.withdrawals.reviewWithdraw, ({ params, body, person }) =>
      reviewWithdrawal(services, params.id, body, {
        ...{ id: person.id, name: person.name },
        mayOverrule: may(person.role, 'confirm withdrawals', person.rights),
      }),
    ),
    route(api.withdrawals.withdraw, ({ params, body, person }) =>
      withdraw(services, person, params.id, body),
    ),
    route(api.withdrawals.register, ({ query: { after, ...query } }) =>
      registerPage(store, registerQuery.cast(query), after),
    ),
    route(api.withdrawals.reviewRestore, ({ body }) => reviewRestore(services, body.rows)),
    route(api.withdrawals.restore, ({ body, person }) => restoreCopies(services, person.id, body)),
    route(api.withdrawals.registerReasons, () => registerReasons(store)),
    route(api.withdrawals.union, async ({ query }) => ({
      ...(await unionPage(store, query.after ?? 0)),
      loansDesk: await countNotices(store),
    })),
    route(api.withdrawals.tellings, () => listTellings(store)),
    route(api.withdrawals.tellUnion, ({ body, person }) => tellUnion(store, person, body)),
    route(api.withdrawals.unionFile, async ({ res, params, query: { as = 'iso2709' } }) => {
      if (!(await store.read('telling', params.id))) throw notFound(`Notice ${params.id}`);
      const [media, ending] =
        as === 'marcxml' ? ['application/marcxml+xml', 'xml'] : ['application/marc', 'mrc'];
      return sendPieces(
        res,
        `union-notice-${params.id}.${ending}`,
        media,
        unionFile(store.aside, params.id, as),
      );
    }),
    route(api.withdrawals.registerFile, ({ res, query }) =>
      sendPieces(
        res,
        'withdrawn.csv',
        'text/csv; charset=utf-8',
        registerLines(store.aside, registerQuery.cast(query)),
      ),
    ),
  ];
}
