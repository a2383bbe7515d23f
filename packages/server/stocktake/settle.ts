import type { JobState, Review, ReviewRow, SettleBody } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { creation, counted } from '@osier/core/changes';
import { codeProblem } from '@osier/core/holdings';
import type { ChangeSet, StoredObject } from '@osier/core/kinds';
import { settlePlan, type SettleItem, type Settlement } from '@osier/core/stocktake';
import { settledParts, type Act } from '@osier/core/acts';
import { today } from '../day';
import { wrong, wrongFields } from '../http/problem';
import { reviewPage } from '../http/review-page';
import { beginReview, changedSinceReview, showsTheSame, type Shown } from '../http/reviewed';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { countCopiesAt } from './queries';
import { reckonFully } from './reckoning';
import { openStocktake } from './stocktake';
import { MOST_SETTLED, refuseStale, toSettle, type ToSettle } from './to-settle';

/** From so many findings on, settling is work in the background. */
const MANY = 500;

/** What is asked for. */
export type SettleAsked = Pick<SettleBody, 'items' | 'all' | 'location'>;

/** Findings to be settled as they stand, checked. */
export interface Settling {
  readonly stocktake: StoredObject<'stocktake'>;
  readonly items: readonly ToSettle[];
  readonly target: string;
}

/** What is to be settled, as it stands in the store; what somebody settled meanwhile, or what is no finding any more, is refused by name. */
async function settling(store: Store, id: number, asked: SettleAsked): Promise<Settling> {
  const stocktake = await openStocktake(store, id);
  const items = await toSettle(store, id, asked);
  if (items.length === 0) throw wrong('items', 'There is nothing (left) to settle.');
  if (items.length > MOST_SETTLED)
    throw wrong('items', `Up to ${MOST_SETTLED.toLocaleString('en-GB')} findings are settled at once.`);
  const { stretch } = stocktake.value;
  const target = asked.location || stretch.locations[0] || '';
  if (items.some((w) => w.act === 'correct-location')) {
    const places = (await store.lists()).value.locations.filter((l) => l.branch === stretch.branch);
    const problem = codeProblem('location', 'location', target, places);
    if (problem) throw wrongFields([problem]);
  }
  return { stocktake, items, target };
}

/** The change set that settles some findings, with the copies that it changes. */
async function plan(
  store: Store,
  { stocktake, items, target }: Settling,
  terms: { readonly by: string; readonly nextHolding: () => number; readonly nextSettled: () => number },
): Promise<{ readonly changes: ChangeSet; readonly copies: ReadonlyMap<string, SettleItem> }> {
  const ids = items.flatMap((w) => w.finding.copy ?? []);
  const held = new Map((await store.readMany('copy', ids)).map((c) => [c.id, c]));
  await refuseStale(store, stocktake.id, items, held);
  const holdingIds = [...new Set([...held.values()].map((c) => c.value.holding))];
  const holdings = new Map((await store.readMany('holding', holdingIds)).map((h) => [h.id, h]));
  const moved = items.filter((w) => w.act === 'correct-location').flatMap((w) => w.finding.record ?? []);
  const siblings = moved.length ? await store.find('holding', { where: { record: moved } }) : [];
  const counts = new Map((await countCopiesAt(store, holdingIds)).map((c) => [c.holding, c.n]));
  const copies = new Map<string, SettleItem>();
  for (const { act, finding } of items) {
    const copy = finding.copy === null ? undefined : held.get(finding.copy);
    const holding = copy && holdings.get(copy.value.holding);
    if (copy && holding)
      copies.set(`${finding.kind} ${finding.code}`, {
        ...{ act, copy, holding },
        siblings: siblings.filter((s) => s.value.record === holding.value.record),
        copiesAtHolding: counts.get(holding.id) ?? 1,
      });
  }
  const on = today();
  const { branch } = stocktake.value.stretch;
  const changes = [
    ...settlePlan([...copies.values()], { on, branch, location: target, nextHoldingId: terms.nextHolding }),
    ...items.map(({ act, finding }) =>
      creation('settled', terms.nextSettled(), {
        ...{ stocktake: stocktake.id, finding: finding.kind, code: finding.code },
        ...{ how: act, on, by: terms.by },
      }),
    ),
  ];
  return { changes, copies };
}

const tally = (wanted: readonly { readonly act: Settlement }[]): Record<Settlement, number> => {
  const counts = { 'mark-missing': 0, 'mark-found': 0, 'correct-location': 0, done: 0 };
  for (const { act } of wanted) counts[act]++;
  return counts;
};

/** Status and place of a copy, in words. */
const standing = (status: string, location: string) => `${status}, ${location}`;

function rowOf(
  row: number,
  { finding, act }: ToSettle,
  item: SettleItem | undefined,
  changes: ChangeSet,
  target: string,
): ReviewRow {
  const copy = item && changes.find((c) => c.kind === 'copy' && c.id === item.copy.id);
  const before = item && standing(item.copy.value.status, item.holding.value.location);
  const after = copy?.kind === 'copy' ? copy.after : null;
  const place = (holding: number) => (holding === item?.holding.id ? item.holding.value.location : target);
  return {
    id: row,
    label: finding.title || groupedBarcode(finding.code),
    detail: [finding.callNumber, groupedBarcode(finding.code)].filter(Boolean).join(' · '),
    exception: item?.copy.value.status === 'lost' ? finding.message : null,
    before: { text: before ?? finding.message },
    after: {
      text:
        act === 'done'
          ? 'done, the records stay'
          : after
            ? standing(after.status, place(after.holding))
            : (before ?? ''),
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
  await reckonFully(services, id);
  const shown = await beginReview(store);
  const now = await settling(store, id, { items, all, location });
  let next = 0;
  const { changes, copies } = await plan(store, now, {
    by: '',
    nextHolding: () => --next,
    nextSettled: () => --next,
  });
  seeSettling(shown, now.items, copies);
  const page = reviewPage<ReviewRow>(from);
  now.items.forEach((item, i) => {
    const copy = copies.get(`${item.finding.kind} ${item.finding.code}`);
    page.offer(copy?.copy.value.status === 'lost', () => rowOf(i + 1, item, copy, changes, now.target));
  });
  return {
    sentence: `${counted(now.items.length, 'finding')} will be settled: ${settledParts(tally(now.items))}.`,
    verb: 'Settle',
    noun: { one: 'finding', many: 'findings' },
    count: now.items.length,
    consequences: [...copies.values()].some((c) => c.copy.value.status === 'lost' && c.act === 'mark-found')
      ? ['A copy recorded lost is found again: a reader may have been billed for it. Tell the loans desk.']
      : [],
    ...page.take(),
    token: shown.token(),
  };
}

/** Settles findings; one that somebody settled meanwhile refuses all of them by name. Many are settled by a job. */
export async function settle(
  services: Services,
  person: { readonly id: number; readonly name: string },
  id: number,
  { location, items, all, leaveOut, token }: SettleBody,
): Promise<{ entry: number | null; sentence: string; job: number | null }> {
  await reckonFully(services, id);
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
        (await plan(store, now, { by: '', nextHolding: () => --none, nextSettled: () => --none })).copies,
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

/** Settles findings as part of a plan. */
export async function settledBy(
  store: Store,
  by: string,
  now: Settling,
): Promise<{ did: Act; changes: ChangeSet }> {
  let [holding, settled] = [
    await store.nextIds('holding', now.items.length),
    await store.nextIds('settled', now.items.length),
  ];
  const { changes } = await plan(store, now, {
    by,
    nextHolding: () => holding++,
    nextSettled: () => settled++,
  });
  return { did: didSettle(now.stocktake, tally(now.items)), changes };
}

/** The act of settling. */
export const didSettle = (stocktake: StoredObject<'stocktake'>, counts: Record<Settlement, number>): Act => ({
  act: 'settle',
  names: { stocktake: stocktake.value.name },
  counts,
});

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
  const { copies } = await plan(store, now, { by: '', nextHolding: () => --next, nextSettled: () => --next });
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
