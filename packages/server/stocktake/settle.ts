import type { JobState, Review, ReviewRow, SettleBody } from '@osier/contract';
import { settledParts } from '@osier/core/acts';
import { groupedBarcode } from '@osier/core/barcodes';
import { counted } from '@osier/core/changes';
import type { ChangeSet } from '@osier/core/kinds';
import type { SettleItem, Settlement } from '@osier/core/stocktake';
import { reviewPage } from '../http/review-page';
import { beginReview, changedSinceReview, showsTheSame, type Shown } from '../http/reviewed';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import { askOfSettling, deskSays } from './desk-says';
import { reckonSoFar } from './reckoning';
import { settledBy, settlementTally, settling, settlingPlan, type Settling } from './settle-plan';
import type { ToSettle } from './to-settle';

/** From so many findings on, settling is work in the background. */
const MANY = 500;

/** What becomes of what the records do not tell; null for what changes them. */
function settledText(act: Settlement, isLent: boolean): string | null {
  if (act === 'return') return 'returned at the loans desk';
  if (act !== 'done') return null;
  return isLent ? 'left on loan' : 'done, the records stay';
}

/** Status and place of a copy, in words. */
const standing = (status: string, location: string) => `${status}, ${location}`;

function rowOf(
  row: number,
  { finding, act }: ToSettle,
  exception: string | null,
  item: SettleItem | undefined,
  changes: ChangeSet,
  target: string,
): ReviewRow {
  const copy = item && changes.find((c) => c.kind === 'copy' && c.id === item.copy.id);
  // What the loans desk knows, the records do not.
  const isLent = finding.acts.includes('return');
  const status = isLent ? 'on loan' : item?.copy.value.status;
  const before = item && standing(status ?? '', item.holding.value.location);
  const after = copy?.kind === 'copy' ? copy.after : null;
  const place = (holding: number) => (holding === item?.holding.id ? item.holding.value.location : target);
  return {
    id: row,
    label: finding.title || groupedBarcode(finding.code),
    detail: [finding.callNumber, groupedBarcode(finding.code)].filter(Boolean).join(' · '),
    exception,
    before: { text: before ?? finding.message },
    after: {
      text:
        settledText(act, isLent) ?? (after ? standing(after.status, place(after.holding)) : (before ?? '')),
    },
    canLeaveOut: true,
  };
}

/** What a review of settling tells: what is settled how, and the copies with their versions. */
function seeSettling(
  shown: Shown,
  items: readonly ToSettle[],
  copies: ReadonlyMap<string, SettleItem>,
): void {
  for (const { act, finding } of items) {
    const item = copies.get(`${finding.kind} ${finding.code}`);
    shown.see(finding.kind, finding.code, act, item?.copy.id, item?.copy.version, item?.holding.version);
  }
}

/** What settling these findings would do. */
export async function reviewSettle(
  services: Services,
  id: number,
  { location, items, all }: SettleBody,
  from = 0,
): Promise<Review> {
  const store = services.store.aside;
  await reckonSoFar(services, id);
  const shown = await beginReview(store);
  const now = await settling(store, id, { items, all, location });
  let next = 0;
  const { changes, copies } = await settlingPlan(store, now, {
    by: '',
    nextHolding: () => --next,
    nextSettled: () => --next,
  });
  seeSettling(shown, now.items, copies);
  const said = await askOfSettling(services, now.items);
  const page = reviewPage<ReviewRow>(from);
  now.items.forEach((item, i) => {
    const copy = copies.get(`${item.finding.kind} ${item.finding.code}`);
    const exception = deskSays(item, copy, said);
    page.offer(exception !== null, () => rowOf(i + 1, item, exception, copy, changes, now.target));
  });
  return {
    sentence: `${counted(now.items.length, 'finding')} will be settled: ${settledParts(settlementTally(now.items))}.`,
    verb: 'Settle',
    noun: { one: 'finding', many: 'findings' },
    count: now.items.length,
    consequences: consequencesOf(services, [...copies.values()]),
    ...page.take(),
    token: shown.token(),
  };
}

/** What settling means beside the records. */
function consequencesOf({ loans }: Services, items: readonly SettleItem[]): string[] {
  const told = items.filter((c) => c.act === 'mark-found-tell').length;
  const returned = items.filter((c) => c.act === 'return').length;
  return [
    items.some((c) => c.copy.value.status === 'lost' && c.act === 'mark-found') &&
      'A copy recorded lost is found again: a reader may have been billed for it. Tell the loans desk.',
    told && `The loans desk will be told that ${counted(told, 'copy is', 'copies are')} found.`,
    returned &&
      `The loans desk will check in ${counted(returned, 'copy', 'copies')}. Undo does not take that back.`,
    (told || returned) && !loans.configured && 'There is no loans desk to be told: do it there by hand.',
  ].filter((s) => typeof s === 'string');
}

/** Settles findings; one that somebody settled meanwhile refuses all of them by name. Many are settled by a job. */
export async function settle(
  services: Services,
  person: { readonly id: number; readonly name: string },
  id: number,
  { location, items, all, leaveOut, token }: SettleBody,
): Promise<{ entry: number | null; sentence: string; job: number | null }> {
  await reckonSoFar(services, id);
  const asked = { items, all, location };
  const first = await settling(services.store, id, asked);
  if (first.items.length - leaveOut.length > MANY)
    return beginSettling(services, person.id, first, { leaveOut, token, location });
  const done = await commitPlan(services.store, person.id, async (store) => {
    const now = await settling(store, id, asked);
    if (token !== undefined) {
      const shown = await beginReview(store);
      let none = 0;
      seeSettling(
        shown,
        now.items,
        (await settlingPlan(store, now, { by: '', nextHolding: () => --none, nextSettled: () => --none }))
          .copies,
      );
      if (!showsTheSame(token, shown.token())) throw changedSinceReview();
    }
    return settledBy(store, person.name, withoutRows(now, leaveOut));
  });
  return { ...done, job: null };
}

const withoutRows = (now: Settling, rows: readonly number[]): Settling => {
  const left = new Set(rows);
  return { ...now, items: now.items.filter((_, i) => !left.has(i + 1)) };
};

/** Begins to settle many findings by a job, once they are known to be as reviewed. */
async function beginSettling(
  services: Services,
  person: number,
  now: Settling,
  {
    leaveOut,
    token,
    location,
  }: { readonly leaveOut: readonly number[]; readonly token: string | undefined; readonly location: string },
): Promise<{ entry: null; sentence: string; job: number }> {
  const { store, jobs } = services;
  const shown = await beginReview(store);
  let next = 0;
  const { copies } = await settlingPlan(store, now, {
    by: '',
    nextHolding: () => --next,
    nextSettled: () => --next,
  });
  seeSettling(shown, now.items, copies);
  if (token !== undefined && !showsTheSame(token, shown.token())) throw changedSinceReview();
  const { items } = withoutRows(now, leaveOut);
  const title = `Settling ${counted(items.length, 'finding')} of ${now.stocktake.value.name}`;
  const work = {
    ...{ stocktake: now.stocktake.id, location },
    items: items.map(({ act, finding }) => ({ act, finding: finding.kind, code: finding.code })),
  };
  const job: JobState = await jobs.begin('settle-findings', title, person, work, items.length);
  return { entry: null, sentence: title, job: job.id };
}
