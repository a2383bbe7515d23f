import { tryPlan } from '../store/commit';
import { ChangedSince } from '../store/conflict';
import type { Store } from '../store/store';
import { ProblemError } from '../http/problem';
import { markedAndScanned, scannedBy } from '../projections/stocktake-returned';
import { settledBy } from './settle-plan';
import { openStocktake } from './stocktake';
import { toSettle } from './to-settle';

/**
 * Settles what was just found of copies that were marked missing in this stocktake and have been scanned since: they are available again, as an
 * entry of its own by each person who scanned them. Undone, the finding stays to be settled by hand.
 */
export async function settleReturned(store: Store, id: number, fresh: readonly string[]): Promise<void> {
  const by = new Map<number, { readonly name: string; readonly codes: string[] }>();
  for (const code of await markedAndScanned(store, id, fresh)) {
    const who = await scannedBy(store, id, code);
    if (!who) continue;
    const own = by.get(who.id) ?? { name: who.name, codes: [] };
    own.codes.push(code);
    by.set(who.id, own);
  }
  for (const [person, { name, codes }] of by) await settleFor(store, id, { person, name, codes });
}

async function settleFor(
  store: Store,
  id: number,
  {
    person,
    name,
    codes,
  }: { readonly person: number; readonly name: string; readonly codes: readonly string[] },
): Promise<void> {
  const items = codes.map((code) => ({ finding: 'found' as const, code, act: 'mark-found' as const }));
  try {
    await tryPlan(store, person, async (s) => {
      const stocktake = await openStocktake(s, id);
      const now = { stocktake, target: '', items: await toSettle(s, id, { items, all: [] }) };
      return settledBy(s, `${name}, by scanning it`, now);
    });
  } catch (error) {
    // Somebody settled one of them, or closed the stocktake, meanwhile: they stay findings.
    const isRefused = error instanceof ProblemError && error.problem.status < 500;
    if (!isRefused && !(error instanceof ChangedSince)) throw error;
  }
}
