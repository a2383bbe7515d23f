import type { StocktakeBody, StocktakeRow } from '@osier/contract';
import { creation, update } from '@osier/core/changes';
import { codeProblem } from '@osier/core/holdings';
import type { StoredObject } from '@osier/core/kinds';
import type { ScanBatch, Stocktake } from '@osier/core/stocktake';
import type { Act } from '@osier/core/acts';
import { today } from '../day';
import { notFound, wrong, wrongFields } from '../http/problem';
import { copiesSeen, keepResult, stocktakeStates } from '../projections/stocktakes';
import { scannedCodes } from '../copies/scanned';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Transaction } from '../store/database';
import type { Store } from '../store/store';
import { askLoans, placeNameOf, placeNames, reconcileNow } from './reconciled';

/** All stocktakes, the newest first, with how each stands. */
export async function listStocktakes({ store }: Services): Promise<StocktakeRow[]> {
  const states = new Map((await stocktakeStates(store)).map((s) => [s.stocktake, s]));
  const all = await store.find('stocktake', { order: [['id', 'DESC']] });
  const names = await placeNames(store);
  return all.map(({ id, version, value }) => {
    const { expected, found, scans, findings } = states.get(id) ?? NOTHING_YET;
    const placeName = placeNameOf(value, names);
    return { id, version, stocktake: value, expected, found, scans, findings, placeName };
  });
}
const NOTHING_YET = { expected: 0, found: 0, scans: 0, findings: null };

/** Starts a stocktake of a stretch. */
export const startStocktake = (
  { store }: Services,
  person: number,
  body: StocktakeBody,
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const lists = (await s.lists()).value;
    const here = lists.locations.filter((l) => l.branch === body.branch);
    const problems = [
      codeProblem('branch', 'branch', body.branch, lists.branches),
      ...body.locations.map((l) => codeProblem('locations', 'location', l, here)),
      ...body.types.map((t) => codeProblem('types', 'type', t, lists.types)),
    ].filter((p) => p !== null);
    if (problems.length) throw wrongFields(problems);
    const { name, seenSince, ...stretch } = body;
    const value: Stocktake = { name, stretch, state: 'open', startedOn: today(), closedOn: '', seenSince };
    const id = await s.nextIds('stocktake', 1);
    const did: Act = { act: 'start-stocktake', names: { stocktake: name } };
    return { did, id, changes: [creation('stocktake', id, value)] };
  });

/** A stocktake that is open; one that is closed is refused. */
export async function openStocktake(store: Store, id: number): Promise<StoredObject<'stocktake'>> {
  const stocktake = await store.read('stocktake', id);
  if (!stocktake) throw notFound(`Stocktake ${id}`);
  if (stocktake.value.state === 'closed') throw wrong('stocktake', 'This stocktake is closed.');
  return stocktake;
}

/** Loads a scanner's file: one entry in the daybook, which can be taken back. */
export const loadScans = async (
  services: Services,
  person: number,
  id: number,
  name: string,
  raw: readonly string[],
): Promise<{ entry: number; sentence: string }> =>
  loadCodes(services, person, id, name, (await scannedCodes(services.store, raw)).filter(Boolean));

/** The same for codes that are clean; `also` is done in the transaction that keeps them. */
export const loadCodes = (
  { store }: Services,
  person: number,
  id: number,
  name: string,
  codes: readonly string[],
  also?: (tx: Transaction, entry: number | null) => Promise<void>,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const stocktake = await openStocktake(s, id);
    if (codes.length === 0) throw wrong('codes', 'There is no barcode in this file.');
    const batch: ScanBatch = { stocktake: id, name, on: today(), codes };
    const did: Act = {
      act: 'load-scans',
      names: { stocktake: stocktake.value.name, file: name },
      counts: { scans: codes.length },
    };
    const changes = [creation('scanbatch', await s.nextIds('scanbatch', 1), batch)];
    return { did, changes, ...(also && { also }) };
  });

/** Closes a stocktake: every copy found gets today as the day it was last seen, and its result is kept. */
export async function closeStocktake(
  services: Services,
  person: number,
  id: number,
): Promise<{ entry: number; sentence: string }> {
  const said = await askLoans(services, (await openStocktake(services.store, id)).id);
  return commitPlan(services.store, person, async (store) => {
    const stocktake = await openStocktake(store, id);
    const { result, loansDesk } = await reconcileNow(store, stocktake, said);
    const seen = await store.readMany('copy', await copiesSeen(store, id));
    const findings = result.findings.length;
    const did: Act = {
      act: 'close-stocktake',
      names: { stocktake: stocktake.value.name },
      counts: { found: result.found, expected: result.expected, findings },
    };
    const closed: Stocktake = { ...stocktake.value, state: 'closed', closedOn: today() };
    return {
      did,
      changes: [
        ...seen.map((c) => update('copy', c, { ...c.value, lastSeen: today() })),
        update('stocktake', stocktake, closed),
      ],
      also: (tx: Transaction) => keepResult(store, id, findings, { result, loansDesk }, tx),
    };
  });
}
