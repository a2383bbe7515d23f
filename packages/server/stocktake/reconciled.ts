import type { StocktakeDetail } from '@osier/contract';
import type { StoredObject } from '@osier/core/kinds';
import { reconcile, type Reconciliation, type ShelfCopy, type Stocktake } from '@osier/core/stocktake';
import { notFound } from '../http/problem';
import type { LoanAnswers } from '../loans/ports';
import {
  codesSeen,
  expectedCopies,
  shelfOf,
  stocktakeState,
  withdrawnSeen,
  type StocktakeState,
} from '../projections/stocktakes';
import type { Services } from '../services';
import { keptJson } from '../store/kept-json';
import type { Store } from '../store/store';

/** What the loans desk says of the copies of a stocktake. Slow, so that it is asked before anything is planned. */
export async function askLoans({ store, loans }: Services, id: number): Promise<LoanAnswers> {
  return loans.ask((await shelfOf(store, id)).map((r) => r.barcode));
}

/** The names of branches and locations, for sentences. */
export async function placeNames(store: Store) {
  const { branches, locations } = (await store.lists()).value;
  return {
    branchName: (code: string) => branches.find((b) => b.code === code)?.name ?? code,
    locationName: (code: string) => locations.find((l) => l.code === code)?.name ?? code,
  };
}

interface Reconciled {
  readonly result: Reconciliation;
  /** The loans desk was heard. */
  readonly loansDesk: boolean;
}

/** A stocktake compared with what stands in the store now. */
export async function reconcileNow(
  store: Store,
  { id, value }: StoredObject<'stocktake'>,
  said: LoanAnswers,
): Promise<Reconciled> {
  const [state, rows, expected, order, gone] = [
    await stocktakeState(store, id),
    await shelfOf(store, id),
    await expectedCopies(store, id),
    await codesSeen(store, id),
    await withdrawnSeen(store, id),
  ];
  const copies = rows.map((r): ShelfCopy => ({ ...r, onLoan: said.of(r.barcode).state === 'on loan' }));
  const shelf = {
    copies,
    expected: new Set(expected),
    scans: order,
    withdrawn: new Map(gone.map((w) => [w.code, w.on])),
  };
  const result = reconcile(value.stretch, shelf, {
    jumpLength: (await store.house()).value.jumpLength,
    seenSince: value.seenSince,
    ...(await placeNames(store)),
  });
  return { loansDesk: said.heard, result: state ? withState(result, state, order.length) : result };
}

/** Copies that were expected and have left the catalogue since are accounted for; codes that come again count as scans. */
function withState(result: Reconciliation, state: StocktakeState, codes: number): Reconciliation {
  const { expected, found, scans } = state;
  const left = expected - result.expected - (found - result.found);
  return {
    ...result,
    ...{ expected, found, scans },
    scannedTwice: scans - codes,
    accountedFor: result.accountedFor + left,
  };
}

/** A stocktake with all that was found: as it was kept when it was closed, else as it stands now. */
export async function stocktakeDetail(services: Services, id: number): Promise<StocktakeDetail> {
  const { store } = services;
  const stocktake = await store.read('stocktake', id);
  if (!stocktake) throw notFound(`Stocktake ${id}`);
  const kept = (await stocktakeState(store, id))?.result ?? null;
  const { result, loansDesk } =
    kept !== null && stocktake.value.state === 'closed'
      ? keptJson<Reconciled>(kept)
      : await reconcileNow(store, stocktake, await askLoans(services, id));
  const { expected, found, scans } = result;
  return {
    ...{ id, version: stocktake.version, stocktake: stocktake.value, expected, found, scans },
    findings: result.findings.length,
    result,
    loansDesk,
    placeName: placeNameOf(stocktake.value, await placeNames(store)),
  };
}

/** The stretch of a stocktake, in words. */
export function placeNameOf(
  { stretch }: Stocktake,
  { branchName, locationName }: Awaited<ReturnType<typeof placeNames>>,
): string {
  const range =
    stretch.from || stretch.to ? [`${stretch.from || 'the beginning'} to ${stretch.to || 'the end'}`] : [];
  return [branchName(stretch.branch), ...stretch.locations.map(locationName), ...range].join(', ');
}
