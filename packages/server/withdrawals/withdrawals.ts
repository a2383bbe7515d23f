import type { Review, WithdrawalListRow } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { counted, creation, update } from '@osier/core/changes';
import type { ChangeSet, StoredObject } from '@osier/core/kinds';
import { codeProblem } from '@osier/core/holdings';
import {
  withdrawalPlan,
  type TitleStock,
  type Verdict,
  type WithdrawalListValue,
} from '@osier/core/withdrawals';
import { quoted, type Act } from '@osier/core/acts';
import { today } from '../day';
import { notFound, wrong, wrongFields } from '../http/problem';
import type { LoanAnswers } from '../loans/ports';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import { beginReview, changedSinceReview, showsTheSame, type Shown } from '../http/reviewed';
import type { Store } from '../store/store';
import { countCodes, openListNamed, titlesOfCopies } from './queries';
import { askLoansForList, weighed } from './weighed';

/** The withdrawal lists, the newest first. */
export async function listWithdrawals({ store }: Services): Promise<WithdrawalListRow[]> {
  const lists = await store.find('withdrawlist', { order: [['id', 'DESC']] });
  const counts = new Map((await countCodes(store)).map((r) => [r.work, r.n]));
  return lists.map((l) => ({ id: l.id, ...l.value, codes: counts.get(l.id) ?? 0 }));
}

/** Starts a withdrawal list. */
export const startList = (
  { store }: Services,
  person: { id: number; name: string },
  body: { name: string; branch: string; reason: string },
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person.id, async (s) => {
    const problem = codeProblem('branch', 'branch', body.branch, (await s.lists()).value.branches);
    if (problem) throw wrongFields([problem]);
    const { name } = body;
    const same = await openListNamed(s, name);
    if (same) throw wrong('name', `There is an open list ${quoted(same.value.name)} already.`);
    const id = await s.nextIds('withdrawlist', 1);
    const value: WithdrawalListValue = { ...body, state: 'open', by: person.name, madeOn: today() };
    const did: Act = { act: 'start-list', names: { list: name } };
    return { did, id, changes: [creation('withdrawlist', id, value)] };
  });

/** A list that can be worked on; one that is done is refused. */
export async function openList(store: Store, id: number): Promise<StoredObject<'withdrawlist'>> {
  const list = await store.read('withdrawlist', id);
  if (!list) throw notFound(`Withdrawal list ${id}`);
  if (list.value.state === 'done') throw wrong('list', 'This list is done. Start a new one.');
  return list;
}

/** The titles of these copies with all their holdings and copies. */
async function stockOf(store: Store, copies: readonly number[]): Promise<TitleStock[]> {
  const titles = new Map((await titlesOfCopies(store, copies)).map((t) => [t.id, t.title]));
  const ids = [...titles.keys()];
  if (ids.length === 0) return [];
  const records = await store.readMany('record', ids);
  const holdings = await store.find('holding', { where: { record: ids } });
  const all = await store.find('copy', { where: { record: ids } });
  return records.map((record) => {
    const own = holdings.filter((h) => h.value.record === record.id);
    return {
      record,
      title: titles.get(record.id)!,
      holdings: own,
      copies: all.filter((c) => own.some((h) => h.id === c.value.holding)),
    };
  });
}

/** Plans the withdrawal of chosen copies of a list. Stopped copies are refused here, whatever the screen shows. */
async function plan(
  store: Store,
  id: number,
  chosen: readonly number[],
  by: string,
  said: LoanAnswers,
  nextId: () => number,
): Promise<{
  list: StoredObject<'withdrawlist'>;
  all: readonly Verdict[];
  verdicts: Verdict[];
  changes: ChangeSet;
}> {
  const list = await openList(store, id);
  const { verdicts } = await weighed(store, id, said);
  const allowed = new Map(
    verdicts.filter((v) => v.candidate && v.verdict !== 'stop').map((v) => [v.candidate!.copyId, v]),
  );
  const stopped = chosen.filter((c) => !allowed.has(c));
  if (stopped.length) {
    const one = verdicts.find((v) => v.candidate?.copyId === stopped[0]);
    throw wrong(
      'copies',
      `${counted(stopped.length, 'copy', 'copies')} cannot be withdrawn${one ? `: ${groupedBarcode(one.code)}: ${one.reasons[0]!.message}` : ', because not on this list.'}`,
    );
  }
  const stock = await stockOf(store, chosen);
  const changes = withdrawalPlan(stock, new Set(chosen), {
    on: today(),
    by,
    reason: list.value.reason,
    nextId,
  });
  return { list, all: verdicts, verdicts: chosen.map((c) => allowed.get(c)!), changes };
}

const totals = (changes: ChangeSet) => {
  const gone = (kind: string) => changes.filter((c) => c.kind === kind && c.after === null).length;
  return { copies: gone('copy'), holdings: gone('holding'), records: gone('record') };
};

/** What withdrawing chosen copies would do. */
export async function reviewWithdrawal(
  services: Services,
  id: number,
  chosen: readonly number[],
  by: string,
): Promise<Review> {
  let next = 0;
  const shown = await beginReview(services.store);
  const said = await askLoansForList(services, id, { anew: false });
  const { verdicts, changes } = await plan(services.store, id, chosen, by, said, () => --next);
  seeWithdrawing(shown, verdicts, changes);
  const n = totals(changes);
  const consequences: string[] = [];
  if (n.holdings)
    consequences.push(
      `${counted(n.holdings, 'holding')} will be deleted, because no copy is left on ${n.holdings === 1 ? 'it' : 'them'}.`,
    );
  if (n.records)
    consequences.push(
      `${counted(n.records, 'record')} will leave the catalogue: the last copy anywhere goes. The union catalogue must be told.`,
    );
  const rows = verdicts.map((v) => ({
    id: v.candidate!.copyId,
    label: v.candidate!.title,
    detail: groupedBarcode(v.code),
    exception: v.reasons[0]?.message ?? null,
    before: { text: `Copy ${groupedBarcode(v.code)}, ${v.candidate!.status}` },
    after: { text: 'In the register of withdrawals' },
    canLeaveOut: true,
  }));
  rows.sort((a, b) => Number(b.exception !== null) - Number(a.exception !== null));
  return {
    sentence: `${counted(n.copies, 'copy', 'copies')} will be withdrawn.`,
    verb: 'Withdraw',
    noun: { one: 'copy', many: 'copies' },
    count: n.copies,
    consequences,
    rows,
    more: 0,
    token: shown.token(),
  };
}

/** What a review of a withdrawal tells: which copies go, why one should look twice, what goes with them. */
function seeWithdrawing(shown: Shown, verdicts: readonly Verdict[], changes: ChangeSet): void {
  for (const v of verdicts)
    shown.see(
      v.candidate?.copyId,
      v.reasons.map((r) => r.message),
    );
  shown.see(totals(changes));
}

/** Withdraws chosen copies. The loans desk is asked anew just before, past whatever it said a moment ago. */
export async function withdraw(
  services: Services,
  person: { id: number; name: string },
  id: number,
  wanted: readonly number[],
  token?: string,
): Promise<{ entry: number; sentence: string }> {
  const chosen = [...new Set(wanted)];
  const said = await askLoansForList(services, id, { anew: true });
  let asked = token;
  return commitPlan(services.store, person.id, async (store) => {
    let next = await store.nextIds('withdrawn', chosen.length);
    const { list, all, verdicts, changes } = await plan(store, id, chosen, person.name, said, () => next++);
    const shown = await beginReview(store);
    seeWithdrawing(shown, verdicts, changes);
    // Without a review, what was planned first is what was asked for.
    const now = shown.token();
    asked ??= now;
    if (!showsTheSame(asked, now)) {
      const why = verdicts.flatMap((v) => v.reasons.map((r) => `${groupedBarcode(v.code)}: ${r.message}`));
      throw changedSinceReview(why.slice(0, 3).join(' '));
    }
    const left = all.filter(
      (v) => v.candidate && v.verdict !== 'stop' && !verdicts.some((w) => w.code === v.code),
    );
    const closing = left.length === 0 ? [update('withdrawlist', list, { ...list.value, state: 'done' })] : [];
    const { copies, records } = totals(changes);
    const did: Act = {
      act: 'withdraw',
      names: { list: list.value.name },
      counts: { copies, records },
    };
    return { did, changes: [...changes, ...closing] };
  });
}
