import { api, type Today } from '@osier/contract';
import { listEntries } from '../daybook/daybook';
import { labelOfAny } from '@osier/core/kinds';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { disputed, disputedCount } from '../store/disputed';
import { totals } from '../projections/counts';
import { openLists, openStocktakes, waitingDeliveries } from './queries';

/** What waits, over all areas. */
async function today(services: Services): Promise<Today> {
  const { store } = services;
  const sums = await totals(store);
  return {
    deliveries: await waitingDeliveries(store),
    withdrawalLists: await openLists(store),
    lookAlikes: sums['look-alikes'],
    stocktakes: await openStocktakes(store),
    records: sums.records,
    copies: sums.copies,
    headings: sums.headings,
    disputed: await disputedCount(store),
    lastEntries: (await listEntries(services, null, 8)).rows,
  };
}

/** The opening area: what waits, what needs attention, what is reachable outside. */
export const todayRoutes = (services: Services): Route[] => [
  route(api.overview.today, () => today(services)),
  route(api.overview.disputed, async () =>
    (await disputed(services.store)).map(({ kind, id, value, why }) => ({
      kind,
      id,
      label: labelOfAny(kind, id, value),
      why,
    })),
  ),
  route(api.overview.outside, async () => {
    if (!services.loans.configured) return { loansDesk: 'none' as const };
    return { loansDesk: (await services.loans.reachable()) ? ('here' as const) : ('silent' as const) };
  }),
];
