import { shelfStatuses } from '@osier/core/stocktake';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { keepLoans, toAsk } from '../projections/stocktake-loans';
import { keepReckoned, nextDirty, reckonOrder, stampOf } from '../projections/stocktake-reckoning';
import type { ReckonOrder, ReckonStocktake } from './reckon-order';
import { settleReturned } from './settle-returned';

/** Longest pause between two reckonings, and how long it is seen whether the scanning pauses, in milliseconds. */
const [LONGEST_PAUSE, LOOK] = [1500, 250];
const pause = (time: number) => new Promise((resolve) => setTimeout(resolve, time));

/** Reckons one stocktake that was touched, once nobody scans in it for a moment; gives 0 when none was. */
export async function reckonSome(store: Store, reckon: ReckonStocktake): Promise<number> {
  const dirty = await nextDirty(store);
  if (!dirty) return 0;
  const began = performance.now();
  if (dirty.isDue) await reckonOne(store, reckon, dirty.stocktake);
  await pause(dirty.isDue ? Math.min(LONGEST_PAUSE, performance.now() - began) : LOOK);
  return 1;
}

/** What is being reckoned, by file and stocktake: one after the other, so that nothing older is kept over what is newer. */
const atWork = new Map<string, Promise<void>>();

async function reckonOne(store: Store, reckon: ReckonStocktake, id: number): Promise<void> {
  const key = `${id} ${store.file}`;
  const mine = (atWork.get(key) ?? Promise.resolve()).then(() => reckonNow(store, reckon, id));
  const ended = mine.catch(() => undefined);
  atWork.set(key, ended);
  try {
    await mine;
  } finally {
    if (atWork.get(key) === ended) atWork.delete(key);
  }
}

async function reckonNow(store: Store, reckon: ReckonStocktake, id: number): Promise<void> {
  const stamp = await stampOf(store, id);
  const plan = stamp === null ? null : await planOf(store, id);
  if (stamp === null || !plan) return;
  const fresh = await keepReckoned(store, id, stamp, await reckon(await reckonOrder(store, id, plan)));
  await settleReturned(store, id, fresh);
}

/** What a stocktake goes by, as it stands; null for one that is gone. */
async function planOf(store: Store, id: number): Promise<ReckonOrder['plan'] | null> {
  const stocktake = await store.read('stocktake', id);
  if (!stocktake) return null;
  const { stretch, seenSince, orders = {}, skipRun } = stocktake.value;
  const house = (await store.house()).value;
  const { branches, locations } = (await store.lists()).value;
  return {
    ...{ stretch, seenSince, orders, branches, locations },
    skipRun: skipRun ?? house.jumpLength,
    statuses: shelfStatuses(house),
    barcodes: house.barcodes,
    prefixOrder: house.prefixOrder ?? [],
  };
}

/** Reckons all that was scanned and done in a stocktake so far; what is scanned meanwhile is reckoned later. */
export async function reckonSoFar({ store: { aside }, pool }: Services, id: number): Promise<void> {
  if ((await stampOf(aside, id)) !== null) await reckonOne(aside, pool.reckonStocktake, id);
}

/** Reckons a stocktake in which nobody scans any more, until nothing of it is to be reckoned. */
export async function reckonFully({ store: { aside }, pool }: Services, id: number): Promise<void> {
  while ((await stampOf(aside, id)) !== null) await reckonOne(aside, pool.reckonStocktake, id);
}

/** Copies about which the loans desk is asked at once, and hours after which it is asked again about one that was not seen. */
const [ASKED, HOURS] = [200, 12];

/** Asks the loans desk about some copies of open stocktakes; gives 0 when there are none, or it is silent. */
export async function askSome(store: Store, loans: Services['loans']): Promise<number> {
  if (!loans.configured) return 0;
  const next = await toAsk(store, ASKED, new Date(Date.now() - HOURS * 3_600_000).toISOString());
  if (!next) return 0;
  return keepLoans(store, next.stocktake, next.barcodes, await loans.ask(next.barcodes));
}
