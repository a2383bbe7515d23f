import { api, type OutsideStanding, type Today } from '@osier/contract';
import { listEntries } from '../daybook/entries';
import { labelOfAny } from '@osier/core/kinds';
import { route, type Route } from '../http/route';
import { briefsToTell } from '../neighbours/brief-records';
import { listNeighbours } from '../neighbours/neighbours';
import type { Services } from '../services';
import { disputed, disputedCount } from '../store/disputed';
import { totals } from '../projections/counts';
import { countsOfFindings } from '../projections/record-findings';
import { countsOfFacet } from '../projections/record-rows';
import type { Store } from '../store/store';
import { openLists, openStocktakes, waitingDeliveries } from './queries';

/** Records and copies at each branch, the largest first. */
async function branches(store: Store): Promise<Today['branches']> {
  const [records, copies] = [await countsOfFacet(store, 'branch'), await countsOfFacet(store, 'copy-branch')];
  const of = new Map(copies.map((c) => [c.value, c.n]));
  return records.map(({ value, n }) => ({ branch: value, records: n, copies: of.get(value) ?? 0 }));
}

/** What waits, over all areas. */
async function today(services: Services): Promise<Today> {
  const { store } = services;
  const sums = await totals(store);
  return {
    deliveries: await waitingDeliveries(store),
    withdrawalLists: await openLists(store),
    lookAlikes: sums['look-alikes'],
    stocktakes: await openStocktakes(store),
    briefRecords: await briefsToTell(store),
    branches: await branches(store),
    copyStatuses: await countsOfFacet(store, 'copy-status'),
    copyTypes: await countsOfFacet(store, 'copy-type'),
    headingKinds: await countsOfFacet(store, 'heading-kind'),
    findings: await countsOfFindings(store),
    records: sums.records,
    copies: sums.copies,
    headings: sums.headings,
    disputed: await disputedCount(store),
    lastEntries: (await listEntries(services, {}, 8)).rows,
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
  route(api.overview.outside, standingOf(services)),
];

/** Whether the services outside answer, and since when the loans desk has been so, as far as this server has seen. */
function standingOf(services: Services): () => Promise<OutsideStanding> {
  const { loans } = services;
  let last: Pick<OutsideStanding, 'loansDesk' | 'since'> = { loansDesk: 'none', since: null };
  return async () => {
    const loansDesk = !loans.configured ? 'none' : (await loans.reachable()) ? 'here' : 'silent';
    if (loansDesk !== last.loansDesk) last = { loansDesk, since: new Date().toISOString() };
    const neighbours = (await listNeighbours(services)).flatMap(({ id, neighbour, out }) =>
      out && neighbour.isUsed ? [{ id, name: neighbour.name, why: out.why, until: out.until }] : [],
    );
    return { ...last, neighbours };
  };
}
