import type { Today } from '@osier/contract';
import { listEntries } from '../daybook/daybook';
import { labelOfAny } from '@osier/core/kinds';
import { lookAlikeCount } from '../headings/headings';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { disputed, disputedCount } from '../store/disputed';
import { listStocktakes } from '../stocktake/stocktake';

/** What waits, over all areas. */
async function today(services: Services): Promise<Today> {
  const { store } = services;
  const count = async (sql: string) => (await store.row<{ n: number }>(sql))!.n;
  const deliveries = await store.rows<Today['deliveries'][number]>(
    `SELECT d.id, d.name, COUNT(*) AS waiting,
       (SELECT COUNT(*) FROM incoming_fields f JOIN incoming e ON e.id = f.id WHERE f.errors > 0 AND e.delivery = d.id AND e.state = 'waiting') AS errors
     FROM deliveries d JOIN incoming i ON i.delivery = d.id AND i.state = 'waiting' GROUP BY d.id ORDER BY d.id DESC`,
  );
  const lists = await store.rows<Today['withdrawalLists'][number]>(
    "SELECT l.id, json_extract(l.value, '$.name') AS name, (SELECT COUNT(*) FROM scans s WHERE s.purpose = 'withdrawal' AND s.work = l.id) AS codes FROM withdrawal_lists l WHERE l.state = 'open' ORDER BY l.id DESC",
  );
  const stocktakes = (await listStocktakes(services)).filter((s) => s.stocktake.state === 'open');
  return {
    deliveries,
    withdrawalLists: lists,
    lookAlikes: await lookAlikeCount(services),
    stocktakes: stocktakes.map((s) => ({
      id: s.id,
      name: s.stocktake.name,
      found: s.found,
      expected: s.expected,
    })),
    records: await count('SELECT COUNT(*) AS n FROM records'),
    copies: await count('SELECT COUNT(*) AS n FROM copies'),
    headings: await count('SELECT COUNT(*) AS n FROM headings WHERE merged_into IS NULL'),
    disputed: await disputedCount(store),
    lastEntries: (await listEntries(services, null, 8)).rows,
  };
}

export const todayRoutes = (services: Services): Route[] => [
  route({
    method: 'get',
    path: '/today',
    summary: 'What waits for me',
    permission: 'look',
    work: () => today(services),
  }),
  route({
    method: 'get',
    path: '/disputed',
    summary: 'What an older store had twice or hanging on nothing, until somebody has settled it',
    permission: 'look',
    work: async () =>
      (await disputed(services.store)).map(({ kind, id, value, why }) => ({
        kind,
        id,
        label: labelOfAny(kind, id, value),
        why,
      })),
  }),
  route({
    method: 'get',
    path: '/outside',
    summary: 'Whether the services outside can be reached',
    permission: 'look',
    work: async () => ({
      loansDesk: !services.loans.configured ? 'none' : (await services.loans.reachable()) ? 'here' : 'silent',
    }),
  }),
];
