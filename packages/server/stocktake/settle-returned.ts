import { tryPlan } from '../store/commit';
import type { Store } from '../store/store';
import { ProblemError } from '../http/problem';
import { markedAndScanned, scannedBy } from '../projections/stocktake-returned';
import { settledBy } from './settle-plan';
import { openStocktake } from './stocktake';
import { toSettle } from './to-settle';

/**
 * Settles what was just found of copies that were marked missing in this stocktake and have been scanned since: they are available again, as an
 * entry of its own by the person who scanned them. Undone, the finding stays to be settled by hand.
 */
export async function settleReturned(store: Store, id: number, fresh: readonly string[]): Promise<void> {
  const codes = await markedAndScanned(store, id, fresh);
  const first = codes[0];
  if (first === undefined) return;
  const by = await scannedBy(store, id, first);
  if (!by) return;
  const items = codes.map((code) => ({ finding: 'found' as const, code, act: 'mark-found' as const }));
  try {
    await tryPlan(store, by.id, async (s) => {
      const stocktake = await openStocktake(s, id);
      const now = { stocktake, target: '', items: await toSettle(s, id, { items, all: [] }) };
      return settledBy(s, `${by.name}, by scanning it`, now);
    });
  } catch (error) {
    // Somebody settled one of them, or closed the stocktake, meanwhile: they stay findings.
    if (!(error instanceof ProblemError) || error.problem.status >= 500) throw error;
  }
}
