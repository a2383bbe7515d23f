import { nextNotices, noticesAnswered, type LoanNotice } from '../projections/loans-to-tell';
import type { DeskNotice } from '../loans/ports';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { limitsOf } from './weighed';

/** Copies of which the loans desk is told at once. */
const AT_ONCE = 50;

/** Tells the loans desk of some copies that went, are back, or were found in a stocktake; gives 0 when there are none, or it is not to be told. Throws when it is silent. */
export async function tellLoans(store: Store, loans: Services['loans']): Promise<number> {
  if (!loans.configured) return 0;
  const next = await nextNotices(store, AT_ONCE, limitsOf((await store.house()).value).tellLoansDesk);
  if (next.length === 0) return 0;
  const said = await loans.tell(new Map(next.map((n) => [n.barcode, noticeOf(n)])));
  await noticesAnswered(
    store,
    next.filter((n) => said.get(n.barcode) === true),
    next.filter((n) => said.get(n.barcode) === false),
  );
  if (said.size === 0) throw new Error('The loans desk does not answer.');
  return said.size;
}

const TEXTS = { gone: 'withdrawn', back: 'in the catalogue again', found: 'found on the shelf' } as const;

const noticeOf = ({ says, day }: LoanNotice): DeskNotice =>
  says === 'return' ? { returnedOn: day } : { text: TEXTS[says] };
