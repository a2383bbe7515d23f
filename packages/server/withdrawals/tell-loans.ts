import { nextNotices, noticesAnswered } from '../projections/loans-to-tell';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { limitsOf } from './weighed';

/** Copies of which the loans desk is told at once. */
const AT_ONCE = 50;

/** Tells the loans desk of some copies that went, or are back; gives 0 when there are none, or it is not to be told. Throws when it is silent. */
export async function tellLoans(store: Store, loans: Services['loans']): Promise<number> {
  if (!loans.configured || !limitsOf((await store.house()).value).tellLoansDesk) return 0;
  const next = await nextNotices(store, AT_ONCE);
  if (next.length === 0) return 0;
  const said = await loans.tell(
    new Map(next.map((n) => [n.barcode, n.isGone ? 'withdrawn' : 'in the catalogue again'])),
  );
  await noticesAnswered(
    store,
    next.filter((n) => said.get(n.barcode) === true),
    next.filter((n) => said.get(n.barcode) === false),
  );
  if (said.size === 0) throw new Error('The loans desk does not answer.');
  return said.size;
}
