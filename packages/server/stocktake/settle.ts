import type { Review } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { counted } from '@osier/core/changes';
import { codeProblem } from '@osier/core/holdings';
import type { ChangeSet } from '@osier/core/kinds';
import { settlePlan, type Settlement, type SettleItem, type StockFinding } from '@osier/core/stocktake';
import { settledParts, type Act } from '@osier/core/acts';
import { tellConflicts } from '../daybook/tell-conflicts';
import { today } from '../day';
import { ProblemError, wrongFields } from '../http/problem';
import type { LoanAnswers } from '../loans/ports';
import { beginReview, changedSinceReview, showsTheSame, type Shown } from '../http/reviewed';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { countCopiesAt } from './queries';
import { askLoans, reconcileNow } from './reconciled';
import { openStocktake } from './stocktake';

interface ToSettle {
  readonly copy: number;
  readonly act: Settlement;
}

/** Plans settling; a finding that is no longer one (somebody else settled it) is refused by name. */
async function plan(
  store: Store,
  id: number,
  asked: readonly ToSettle[],
  location: string,
  said: LoanAnswers,
  nextHoldingId: () => number,
) {
  const wanted = [...new Map(asked.map((w) => [`${w.copy} ${w.act}`, w])).values()];
  const stocktake = await openStocktake(store, id);
  const { result: r } = await reconcileNow(store, stocktake, said);
  const findings = new Map(
    r.findings.flatMap((f) => f.settlements.map((act) => [`${f.copy?.copyId} ${act}`, f] as const)),
  );
  const of = (w: ToSettle) => findings.get(`${w.copy} ${w.act}`);
  const stale = wanted.find((w) => !of(w));
  if (stale) throw await settledSince(store, stale);
  const { stretch } = stocktake.value;
  const target = location || stretch.locations[0] || '';
  if (wanted.some((w) => w.act === 'correct-location')) {
    const places = (await store.lists()).value.locations.filter((l) => l.branch === stretch.branch);
    const problem = codeProblem('location', 'location', target, places);
    if (problem) throw wrongFields([problem]);
  }
  const copies = new Map(
    (
      await store.readMany(
        'copy',
        wanted.map((w) => w.copy),
      )
    ).map((c) => [c.id, c]),
  );
  const holdingIds = [...new Set([...copies.values()].map((c) => c.value.holding))];
  const holdings = new Map((await store.readMany('holding', holdingIds)).map((h) => [h.id, h]));
  const records = [...new Set([...holdings.values()].map((h) => h.value.record))];
  const siblings = await store.find('holding', { where: { record: records } });
  const counts = new Map((await countCopiesAt(store, holdingIds)).map((c) => [c.holding, c.n]));
  const items = wanted.map(({ copy: copyId, act }): SettleItem => {
    const copy = copies.get(copyId)!;
    const holding = holdings.get(copy.value.holding)!;
    return {
      act,
      copy,
      holding,
      siblings: siblings.filter((s) => s.value.record === holding.value.record),
      copiesAtHolding: counts.get(holding.id) ?? 1,
    };
  });
  const changes = settlePlan(items, { on: today(), branch: stretch.branch, location: target, nextHoldingId });
  return { stocktake, changes, items, target, findings: wanted.map((w) => of(w)!) };
}

/** Somebody else may have settled a finding: says who did what with the copy. */
async function settledSince(store: Store, { copy, act }: ToSettle): Promise<ProblemError> {
  const [held] = await store.readMany('copy', [copy]);
  const conflicts = await tellConflicts(
    { store },
    [{ kind: 'copy', id: copy, expected: null, found: held?.value ?? null }],
    0,
  );
  return new ProblemError(
    409,
    `Copy ${held ? groupedBarcode(held.value.barcode) : copy} is not a finding that “${act}” settles (any more). ${conflicts[0]!.message}`,
    { conflicts, fields: [{ field: 'items', message: conflicts[0]!.message }] },
  );
}

const tally = (wanted: readonly { readonly act: Settlement }[]): Record<Settlement, number> => {
  const counts = { 'mark-missing': 0, 'mark-found': 0, 'correct-location': 0 };
  for (const { act } of wanted) counts[act]++;
  return counts;
};

/** Status and place of a copy, in words. */
const standing = (status: string, location: string) => `${status}, ${location}`;

function afterOf(changes: ChangeSet, item: SettleItem, target: string): string {
  const copy = changes.filter((c) => c.kind === 'copy').find((c) => c.id === item.copy.id)?.after;
  if (!copy) return '';
  return standing(copy.status, copy.holding === item.holding.id ? item.holding.value.location : target);
}

/** What a review of settling tells: the objects with their versions, and the findings. */
function seeSettling(shown: Shown, changes: ChangeSet, findings: readonly StockFinding[]): void {
  for (const c of changes) shown.see(c.kind, c.before === null ? 'new' : c.id, c.version);
  for (const f of findings) shown.see(f.code, f.message, f.copy?.status);
}

/** What settling these findings would do. */
export async function reviewSettle(
  services: Services,
  id: number,
  wanted: readonly ToSettle[],
  location: string,
): Promise<Review> {
  let next = 0;
  const shown = await beginReview(services.store);
  const said = await askLoans(services, (await openStocktake(services.store, id)).id);
  const { changes, items, findings, target } = await plan(
    services.store,
    id,
    wanted,
    location,
    said,
    () => --next,
  );
  seeSettling(shown, changes, findings);
  return {
    sentence: `${counted(wanted.length, 'finding')} will be settled: ${settledParts(tally(wanted))}.`,
    verb: 'Settle',
    noun: { one: 'finding', many: 'findings' },
    count: wanted.length,
    consequences: findings.some((f) => f.copy!.status === 'lost')
      ? ['A copy recorded lost is found again: a reader may have been billed for it.']
      : [],
    rows: items.map((item, i) => ({
      id: item.copy.id,
      label: findings[i]!.copy!.title,
      detail: `${findings[i]!.copy!.callNumber} · ${groupedBarcode(item.copy.value.barcode)}`,
      exception: item.copy.value.status === 'lost' ? findings[i]!.message : null,
      before: { text: standing(item.copy.value.status, item.holding.value.location) },
      after: { text: afterOf(changes, item, target) },
      canLeaveOut: true,
    })),
    more: 0,
    token: shown.token(),
  };
}

/** Settles findings; one that somebody settled meanwhile refuses all of them by name. */
export async function settle(
  services: Services,
  person: number,
  id: number,
  wanted: readonly ToSettle[],
  location: string,
  token?: string,
): Promise<{ entry: number; sentence: string }> {
  const said = await askLoans(services, (await openStocktake(services.store, id)).id);
  return commitPlan(services.store, person, async (store) => {
    let next = await store.nextIds('holding', wanted.length);
    const shown = await beginReview(store);
    const { stocktake, changes, items, findings } = await plan(
      store,
      id,
      wanted,
      location,
      said,
      () => next++,
    );
    seeSettling(shown, changes, findings);
    if (token !== undefined && !showsTheSame(token, shown.token())) throw changedSinceReview();
    const did: Act = {
      act: 'settle',
      names: { stocktake: stocktake.value.name },
      counts: tally(items),
    };
    return { did, changes };
  });
}
