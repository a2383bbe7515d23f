import type { Review, WithdrawBody, WithdrawalListRow, WithdrawalRow } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { counted, creation, removal, update } from '@osier/core/changes';
import type { ChangeSet, StoredObject } from '@osier/core/kinds';
import { codeProblem } from '@osier/core/holdings';
import { withdrawalPlan, type TitleStock, type WithdrawalListValue } from '@osier/core/withdrawals';
import { quoted, type Act } from '@osier/core/acts';
import { today } from '../day';
import { notFound, wrong, wrongFields } from '../http/problem';
import type { LoanAnswers } from '../loans/ports';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import { beginReview, changedSinceReview, showsTheSame, type Shown } from '../http/reviewed';
import type { Store } from '../store/store';
import { countCodes, openListNamed, titlesOfCopies } from './queries';
import { whatGoesWith } from './consequences';
import { askLoansForList, limitsOf, weighed } from './weighed';

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

/** Changes name, reason or branch of an open list. */
export const changeList = (
  { store }: Services,
  person: number,
  id: number,
  { version, ...body }: { version: number; name: string; branch: string; reason: string },
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const list = await openList(s, id);
    const problem = codeProblem('branch', 'branch', body.branch, (await s.lists()).value.branches);
    if (problem) throw wrongFields([problem]);
    const same = await openListNamed(s, body.name);
    if (same && same.id !== id)
      throw wrong('name', `There is an open list ${quoted(same.value.name)} already.`);
    const did: Act = { act: 'change-list', names: { list: body.name } };
    return { did, changes: [update('withdrawlist', { ...list, version }, { ...list.value, ...body })] };
  });

/** Deletes an open list; the scans stay with its number, so that undoing brings all of it back. */
export const deleteList = (
  { store }: Services,
  person: number,
  id: number,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const list = await openList(s, id);
    const did: Act = { act: 'delete-list', names: { list: list.value.name } };
    return { did, changes: [removal('withdrawlist', list)] };
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
  const titles = new Map((await titlesOfCopies(store, copies)).map((t) => [t.id, t]));
  const ids = [...titles.keys()];
  if (ids.length === 0) return [];
  const records = await store.readMany('record', ids);
  const holdings = await store.find('holding', { where: { record: ids } });
  const all = await store.find('copy', { where: { record: ids } });
  return records.map((record) => {
    const own = holdings.filter((h) => h.value.record === record.id);
    const { title, author, isSuppressed } = titles.get(record.id)!;
    return {
      ...{ record, title, author, isSuppressed: isSuppressed === 1 },
      holdings: own,
      copies: all.filter((c) => own.some((h) => h.id === c.value.holding)),
    };
  });
}

/** What is asked to be withdrawn, and how. */
export type Withdrawing = Pick<WithdrawBody, 'copies' | 'overrule' | 'lastCopy'>;

/** What withdrawing goes by beside the store. */
interface WithdrawTerms {
  readonly by: string;
  /** Only the head overrules what stops a copy. */
  readonly mayOverrule: boolean;
  readonly said: LoanAnswers;
  readonly nextId: () => number;
}

/** Plans the withdrawal of chosen copies of a list. Stopped copies are refused here, whatever the screen shows, unless the head overrules what may be. */
async function plan(
  store: Store,
  id: number,
  { copies: wanted, overrule, lastCopy }: Withdrawing,
  { by, mayOverrule, said, nextId }: WithdrawTerms,
): Promise<{
  list: StoredObject<'withdrawlist'>;
  all: readonly WithdrawalRow[];
  verdicts: WithdrawalRow[];
  changes: ChangeSet;
}> {
  const list = await openList(store, id);
  const chosen = [...new Set(wanted)];
  const { verdicts } = await weighed(store, id, said);
  const first = verdicts.filter((v) => !v.again);
  const of = new Map(first.flatMap((v) => (v.candidate ? [[v.candidate.copyId, v]] : [])));
  const overruled = new Set(mayOverrule ? overrule.copies : []);
  const goes = (copy: number) => {
    const v = of.get(copy);
    return v !== undefined && (v.verdict !== 'stop' || (v.overrulable && overruled.has(copy)));
  };
  const stopped = chosen.filter((c) => !goes(c));
  if (stopped.length) {
    const one = of.get(stopped[0] ?? 0);
    const why = one?.reasons.find((r) => r.verdict === 'stop')?.message ?? '';
    throw wrong(
      'copies',
      `${counted(stopped.length, 'copy', 'copies')} cannot be withdrawn${one ? `: ${groupedBarcode(one.code)}: ${why}` : ', because not on this list.'}`,
    );
  }
  const going = chosen.flatMap((c) => of.get(c) ?? []);
  const stock = await stockOf(store, chosen);
  const reasonsOf = (v: WithdrawalRow) => v.reasons.map((r) => r.message);
  const changes = withdrawalPlan(stock, new Set(chosen), {
    on: today(),
    by,
    reason: list.value.reason,
    list: list.value.name,
    nextId,
    lastCopy: lastCopy ?? limitsOf((await store.house()).value).lastCopy,
    despite: new Map(going.map((v) => [v.candidate?.copyId ?? 0, reasonsOf(v)])),
    overruled: new Map(
      going.flatMap((v) =>
        v.verdict === 'stop' && v.candidate ? [[v.candidate.copyId, overrule.reason]] : [],
      ),
    ),
  });
  return { list, all: first, verdicts: going, changes };
}

const countGone = (changes: ChangeSet) => {
  const gone = (kind: string) => changes.filter((c) => c.kind === kind && c.after === null).length;
  return { copies: gone('copy'), holdings: gone('holding'), records: gone('record') };
};

/** What withdrawing chosen copies would do. */
export async function reviewWithdrawal(
  services: Services,
  id: number,
  asked: Withdrawing,
  who: { readonly name: string; readonly mayOverrule: boolean },
): Promise<Review> {
  let next = 0;
  const { store } = services;
  const shown = await beginReview(store);
  const said = await askLoansForList(services, id, { anew: false });
  const terms = { by: who.name, mayOverrule: who.mayOverrule, said, nextId: () => --next };
  const { verdicts, changes } = await plan(store, id, asked, terms);
  seeWithdrawing(shown, verdicts, changes);
  const n = countGone(changes);
  const rows = verdicts.map((v) => ({
    id: v.candidate!.copyId,
    label: v.candidate!.title,
    detail: groupedBarcode(v.code),
    exception: v.reasons.map((r) => r.message).join(' ') || null,
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
    consequences: await whatGoesWith(store, changes),
    rows,
    more: 0,
    token: shown.token(),
  };
}

/** What a review of a withdrawal tells: which copies go, why one should look twice, what goes with them. */
function seeWithdrawing(shown: Shown, verdicts: readonly WithdrawalRow[], changes: ChangeSet): void {
  for (const v of verdicts)
    shown.see(
      v.candidate?.copyId,
      v.reasons.map((r) => r.message),
    );
  const kept = changes.filter((c) => c.kind === 'suppressed' || (c.kind === 'record' && c.after !== null));
  shown.see(
    countGone(changes),
    kept.map((c) => [c.kind, c.id]),
  );
}

/** Withdraws chosen copies. The loans desk is asked anew just before, past whatever it said a moment ago. */
export async function withdraw(
  services: Services,
  person: { id: number; name: string },
  id: number,
  { token, ...asked }: Withdrawing & Pick<WithdrawBody, 'token'>,
): Promise<{ entry: number; sentence: string }> {
  const said = await askLoansForList(services, id, { anew: true });
  let reviewed = token;
  return commitPlan(services.store, person.id, async (store) => {
    let next = await store.nextIds('withdrawn', asked.copies.length);
    const { list, all, verdicts, changes } = await plan(store, id, asked, {
      ...{ by: person.name, mayOverrule: true, said },
      nextId: () => next++,
    });
    const shown = await beginReview(store);
    seeWithdrawing(shown, verdicts, changes);
    // Without a review, what was planned first is what was asked for.
    const now = shown.token();
    reviewed ??= now;
    if (!showsTheSame(reviewed, now)) {
      const why = verdicts.flatMap((v) => v.reasons.map((r) => `${groupedBarcode(v.code)}: ${r.message}`));
      throw changedSinceReview(why.slice(0, 3).join(' '));
    }
    const left = all.filter(
      (v) => v.candidate && v.verdict !== 'stop' && !verdicts.some((w) => w.code === v.code),
    );
    const closing = left.length === 0 ? [update('withdrawlist', list, { ...list.value, state: 'done' })] : [];
    const { copies, records } = countGone(changes);
    const did: Act = {
      act: 'withdraw',
      names: { list: list.value.name },
      counts: { copies, records },
    };
    return { did, changes: [...changes, ...closing] };
  });
}
