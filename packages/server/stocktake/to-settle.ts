import type { SettleBody, StockFindingRow } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import type { StoredObject } from '@osier/core/kinds';
import { COPY_OUTCOMES, shelfStatuses, type Settlement, type StockFindingKind } from '@osier/core/stocktake';
import { ProblemError } from '../http/problem';
import { seenAmong } from '../projections/stocktake-places';
import { copiesWithBarcodes, findingsWithCodes } from '../projections/stocktake-views';
import type { Store } from '../store/store';
import { findingPage, shownCopy, shownFinding } from './view';

/** Findings that are settled at once. */
export const MOST_SETTLED = 20_000;

/** A finding and what is done about it. */
export interface ToSettle {
  readonly act: Settlement;
  readonly finding: StockFindingRow;
}

/** The findings that are asked for, each with its act once; 409 for one that is none (any more) or was settled. */
export async function toSettle(
  store: Store,
  id: number,
  asked: Pick<SettleBody, 'items' | 'all'>,
): Promise<readonly ToSettle[]> {
  const { items, refused: no } = await sortedOut(store, id, asked);
  if (no[0]) throw no[0];
  return items;
}

/** The same without refusing: what can be settled, and why the others cannot. */
export async function sortedOut(
  store: Store,
  id: number,
  { items, all }: Pick<SettleBody, 'items' | 'all'>,
): Promise<{ readonly items: readonly ToSettle[]; readonly refused: readonly ProblemError[] }> {
  const found = new Map<string, ToSettle>();
  const no: ProblemError[] = [];
  for (const { finding, act } of all)
    for await (const row of everyFinding(store, id, finding))
      if (row.settled === null && row.acts.includes(act))
        found.set(`${row.kind} ${row.code}`, { act, finding: row });
  const kinds = new Set(items.map((i) => i.finding));
  for (const kind of kinds) {
    const own = new Map(items.filter((i) => i.finding === kind).map((i) => [i.code, i.act]));
    const rows = new Map((await findingsNamed(store, id, kind, [...own.keys()])).map((f) => [f.code, f]));
    for (const [code, act] of own) {
      const row = rows.get(code);
      if (!row?.acts.includes(act))
        no.push(refused(code, `is not a finding that “${NAMES[act]}” settles (any more)`));
      else if (row.settled)
        no.push(refused(code, `was settled on ${row.settled.on} by ${row.settled.by || 'somebody'}`));
      else found.set(`${kind} ${code}`, { act, finding: row });
    }
  }
  return { items: [...found.values()], refused: no };
}

const NAMES: Readonly<Record<Settlement, string>> = {
  'mark-missing': 'mark missing',
  'mark-found': 'mark found',
  'mark-found-tell': 'mark found, tell the loans desk',
  return: 'return at the loans desk',
  'correct-location': 'set location',
  done: 'mark as done',
};

const refused = (code: string, why: string): ProblemError =>
  new ProblemError(409, `${groupedBarcode(code)} ${why}. Nothing was settled.`, {
    fields: [{ field: 'items', message: `${groupedBarcode(code)} ${why}.` }],
  });

async function* everyFinding(
  store: Store,
  id: number,
  kind: StockFindingKind,
): AsyncGenerator<StockFindingRow> {
  let after: string | undefined;
  for (let count = 0; count <= MOST_SETTLED;) {
    const { rows, next } = await findingPage(store, id, kind, after);
    yield* rows;
    count += rows.length;
    if (next === null) return;
    after = next;
  }
}

/** Findings by their codes; a copy of a skipped shelf may be marked missing as well. */
async function findingsNamed(
  store: Store,
  id: number,
  kind: StockFindingKind,
  codes: readonly string[],
): Promise<StockFindingRow[]> {
  if (kind !== 'missing') return (await findingsWithCodes(store, id, kind, codes)).map(shownFinding);
  const [missing, skipped] = [COPY_OUTCOMES.indexOf('missing'), COPY_OUTCOMES.indexOf('skipped')];
  const rows = await copiesWithBarcodes(store, id, codes);
  return rows.filter((r) => r.outcome === missing || r.outcome === skipped).map(shownCopy);
}

/** Refuses what has changed since it was reckoned: a copy that was scanned, withdrawn, or put right by somebody else. */
export async function refuseStale(
  store: Store,
  id: number,
  items: readonly ToSettle[],
  held: ReadonlyMap<number, StoredObject<'copy'>>,
): Promise<void> {
  const [first] = (await staleOnes(store, id, items, held)).values();
  if (first) throw first;
}

/** Why some of what is to be settled has changed since it was reckoned. */
export async function staleOnes(
  store: Store,
  id: number,
  items: readonly ToSettle[],
  held: ReadonlyMap<number, StoredObject<'copy'>>,
): Promise<ReadonlyMap<ToSettle, ProblemError>> {
  const standing = shelfStatuses((await store.house()).value);
  const marked = items.flatMap(({ act, finding }) => (act === 'mark-missing' ? [finding.code] : []));
  const seen = await seenAmong(store, id, marked);
  const why = ({ act, finding }: ToSettle): string | null => {
    if (act === 'done' || finding.copy === null) return null;
    const copy = held.get(finding.copy);
    if (!copy) return 'is no copy any more: it was withdrawn or deleted';
    const { status } = copy.value;
    if (act === 'mark-missing' && !standing.includes(status)) return `is recorded ${status} by now`;
    if (act === 'mark-missing' && seen.has(finding.code)) return 'was scanned meanwhile';
    return (act === 'mark-found' || act === 'mark-found-tell') && standing.includes(status)
      ? `is recorded ${status} by now`
      : null;
  };
  return new Map(
    items.flatMap((item) => {
      const no = why(item);
      return no === null ? [] : [[item, refused(item.finding.code, no)] as const];
    }),
  );
}
