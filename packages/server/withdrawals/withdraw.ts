import type { Review, WithdrawBody, WithdrawalRow } from '@osier/contract';
import { quoted, type Act } from '@osier/core/acts';
import { groupedBarcode } from '@osier/core/barcodes';
import { counted, update } from '@osier/core/changes';
import type { ChangeSet, StoredObject } from '@osier/core/kinds';
import { reviewPage } from '../http/review-page';
import { beginReview, changedSinceReview, showsTheSame, type Shown } from '../http/reviewed';
import type { LoanAnswers } from '../loans/ports';
import { personById } from '../people/queries';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { whatGoesWith } from './consequences';
import { openList } from './lists';
import { askLoansForList, weighed } from './weighed';
import { jobOf } from './withdraw-many';
import { changesOf, countGone, goingOf, reasonsOf, refuseStopped, type Withdrawing } from './withdraw-plan';

/** From so many copies on, withdrawing is work in the background. */
const MANY = 500;

/** What withdrawing goes by beside the store. */
interface WithdrawTerms {
  readonly by: string;
  /** Only the head overrules what stops a copy. */
  readonly mayOverrule: boolean;
  readonly said: LoanAnswers;
  readonly nextId: () => number;
}

interface WithdrawPlan {
  readonly list: StoredObject<'withdrawlist'>;
  readonly all: readonly WithdrawalRow[];
  readonly verdicts: readonly WithdrawalRow[];
  readonly changes: ChangeSet;
}

/** Plans the withdrawal of chosen copies of a list. Stopped copies are refused here, whatever the screen shows, unless the head overrules what may be. */
async function plan(
  store: Store,
  id: number,
  asked: Withdrawing,
  { by, mayOverrule, said, nextId }: WithdrawTerms,
): Promise<WithdrawPlan> {
  const list = await openList(store, id);
  const { verdicts } = await weighed(store, id, said);
  const found = goingOf(verdicts, asked.copies, new Set(mayOverrule ? asked.overrule.copies : []));
  refuseStopped(found);
  const changes = await changesOf(store, list, found.going, asked, { by, nextId });
  return { list, all: found.first, verdicts: found.going, changes };
}

/** What withdrawing chosen copies would do. */
export async function reviewWithdrawal(
  services: Services,
  id: number,
  { from, ...asked }: Withdrawing & Pick<WithdrawBody, 'from'>,
  who: { readonly id: number; readonly name: string; readonly mayOverrule: boolean },
): Promise<Review> {
  let next = 0;
  const store = services.store.aside;
  const shown = await beginReview(store);
  const said = await askLoansForList(services, id, { anew: false });
  const terms = { by: who.name, mayOverrule: who.mayOverrule, said, nextId: () => --next };
  const { list, verdicts, changes } = await plan(store, id, asked, terms);
  seeWithdrawing(shown, verdicts, changes);
  const n = countGone(changes);
  const page = reviewPage<Review['rows'][number]>(from);
  for (const v of verdicts)
    page.offer(v.reasons.length > 0, () => ({
      id: v.candidate?.copyId ?? 0,
      label: v.candidate?.title ?? '',
      detail: groupedBarcode(v.code),
      exception: reasonsOf(v).join(' ') || null,
      before: { text: `Copy ${groupedBarcode(v.code)}, ${v.candidate?.status ?? ''}` },
      after: { text: 'In the register of withdrawals' },
      canLeaveOut: true,
    }));
  return {
    sentence: `${counted(n.copies, 'copy', 'copies')} will be withdrawn.`,
    verb: 'Withdraw',
    noun: { one: 'copy', many: 'copies' },
    count: n.copies,
    consequences: [...(await whoIsToConfirm(store, list, who.id)), ...(await whatGoesWith(store, changes))],
    ...page.take(),
    token: shown.token(),
  };
}

/** Says so where the list is for another person to confirm. */
async function whoIsToConfirm(
  store: Store,
  { value: { confirmer } }: StoredObject<'withdrawlist'>,
  reviewer: number,
): Promise<string[]> {
  if (confirmer === undefined || confirmer === reviewer) return [];
  const named = await personById(store, confirmer);
  return named ? [`${named.name} is named to confirm this list.`] : [];
}

/** What a review of a withdrawal tells: which copies go, why one should look twice, what goes with them. */
function seeWithdrawing(shown: Shown, verdicts: readonly WithdrawalRow[], changes: ChangeSet): void {
  for (const v of verdicts) shown.see(v.candidate?.copyId, reasonsOf(v));
  const kept = changes.filter((c) => c.kind === 'suppressed' || (c.kind === 'record' && c.after !== null));
  shown.see(
    countGone(changes),
    kept.map((c) => [c.kind, c.id]),
  );
}

/** Refuses a withdrawal that would be another than the one reviewed, and says what of its copies; gives what it shows now. */
async function asReviewed(
  store: Store,
  token: string | undefined,
  { verdicts, changes }: WithdrawPlan,
): Promise<string> {
  const shown = await beginReview(store);
  seeWithdrawing(shown, verdicts, changes);
  const now = shown.token();
  if (token === undefined || showsTheSame(token, now)) return now;
  const why = verdicts.flatMap((v) => v.reasons.map((r) => `${groupedBarcode(v.code)}: ${r.message}`));
  throw changedSinceReview(why.slice(0, 3).join(' '));
}

/** Withdraws chosen copies. The loans desk is asked anew just before, past whatever it said a moment ago. Many go by a job. */
export async function withdraw(
  services: Services,
  person: { id: number; name: string },
  id: number,
  { token, ...asked }: Withdrawing & Pick<WithdrawBody, 'token'>,
): Promise<{ entry: number | null; sentence: string; job: number | null }> {
  const said = await askLoansForList(services, id, { anew: true });
  const terms = { by: person.name, mayOverrule: true, said };
  if (asked.copies.length > MANY) {
    const store = services.store.aside;
    let none = 0;
    const planned = await plan(store, id, asked, { ...terms, nextId: () => --none });
    await asReviewed(store, token, planned);
    const { name } = planned.list.value;
    const title = `Withdrawing ${counted(planned.verdicts.length, 'copy', 'copies')} of ${quoted(name)}`;
    const work = jobOf(id, asked, planned.verdicts);
    const job = await services.jobs.begin('withdraw-copies', title, person.id, work, work.titles.length);
    return { entry: null, sentence: title, job: job.id };
  }
  let reviewed = token;
  const done = await commitPlan(services.store, person.id, async (store) => {
    let next = await store.nextIds('withdrawn', asked.copies.length);
    const planned = await plan(store, id, asked, { ...terms, nextId: () => next++ });
    const { list, all, verdicts, changes } = planned;
    // Without a review, what was planned first is what was asked for.
    reviewed = await asReviewed(store, reviewed, planned);
    const going = new Set(verdicts.map((v) => v.code));
    const left = all.some((v) => v.candidate && v.verdict !== 'stop' && !going.has(v.code));
    const closing = left ? [] : [update('withdrawlist', list, { ...list.value, state: 'done' })];
    const { copies, records } = countGone(changes);
    const did: Act = { act: 'withdraw', names: { list: list.value.name }, counts: { copies, records } };
    return { did, changes: [...changes, ...closing] };
  });
  return { ...done, job: null };
}
