import type { SettleBody } from '@osier/contract';
import type { Act } from '@osier/core/acts';
import { creation } from '@osier/core/changes';
import { codeProblem } from '@osier/core/holdings';
import type { ChangeSet, StoredObject } from '@osier/core/kinds';
import { locationsOf, settlePlan, type SettleItem, type Settlement } from '@osier/core/stocktake';
import { today } from '../day';
import { wrong, wrongFields } from '../http/problem';
import { daysSeen } from '../projections/stocktake-places';
import type { Store } from '../store/store';
import { countCopiesAt } from './queries';
import { openStocktake } from './stocktake';
import { MOST_SETTLED, refuseStale, toSettle, type ToSettle } from './to-settle';

/** What is asked for. */
export type SettleAsked = Pick<SettleBody, 'items' | 'all' | 'location'>;

/** Findings to be settled as they stand, checked. */
export interface Settling {
  readonly stocktake: StoredObject<'stocktake'>;
  readonly items: readonly ToSettle[];
  readonly target: string;
}

/** What is to be settled, as it stands in the store; what somebody settled meanwhile, or what is no finding any more, is refused by name. */
export async function settling(store: Store, id: number, asked: SettleAsked): Promise<Settling> {
  const stocktake = await openStocktake(store, id);
  const items = await toSettle(store, id, asked);
  if (items.length === 0) throw wrong('items', 'There is nothing (left) to settle.');
  if (items.length > MOST_SETTLED)
    throw wrong('items', `Up to ${MOST_SETTLED.toLocaleString('en-GB')} findings are settled at once.`);
  const { stretch } = stocktake.value;
  const target = asked.location || stretch.locations[0] || '';
  if (items.some((w) => w.act === 'correct-location')) {
    const places = locationsOf({ ...stretch, locations: [] }, (await store.lists()).value.locations);
    const problem = codeProblem('location', 'location', target, places);
    if (problem) throw wrongFields([problem]);
  }
  return { stocktake, items, target };
}

/** The change set that settles some findings, with the copies that it changes. */
export async function settlingPlan(
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
  const seen = await daysSeen(
    store,
    stocktake.id,
    items.flatMap(({ act, finding }) => (act === 'return' ? [finding.code] : [])),
  );
  const branch =
    (await store.lists()).value.locations.find((l) => l.code === target)?.branch ??
    stocktake.value.stretch.branch;
  const changes = [
    ...settlePlan([...copies.values()], { on, branch, location: target, nextHoldingId: terms.nextHolding }),
    ...items.map(({ act, finding }) =>
      creation('settled', terms.nextSettled(), {
        ...{ stocktake: stocktake.id, finding: finding.kind, code: finding.code },
        ...{ how: act, on, by: terms.by },
        ...(act === 'return' && { seenOn: seen.get(finding.code) ?? on }),
      }),
    ),
  ];
  return { changes, copies };
}

/** A number for each way of settling. */
export const tallyOf = (count: (act: Settlement) => number): Record<Settlement, number> => ({
  ...{ 'mark-missing': count('mark-missing'), 'mark-found': count('mark-found') },
  ...{ 'mark-found-tell': count('mark-found-tell'), return: count('return') },
  ...{ 'correct-location': count('correct-location'), done: count('done') },
});

/** How many findings are settled in each way. */
export const settlementTally = (
  wanted: readonly { readonly act: Settlement }[],
): Record<Settlement, number> => {
  const counts = tallyOf(() => 0);
  for (const { act } of wanted) counts[act]++;
  return counts;
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
  const { changes } = await settlingPlan(store, now, {
    by,
    nextHolding: () => holding++,
    nextSettled: () => settled++,
  });
  return { did: didSettle(now.stocktake, settlementTally(now.items)), changes };
}

/** The act of settling. */
export const didSettle = (stocktake: StoredObject<'stocktake'>, counts: Record<Settlement, number>): Act => ({
  act: 'settle',
  names: { stocktake: stocktake.value.name },
  counts,
});
