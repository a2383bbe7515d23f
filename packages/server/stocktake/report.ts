import type { StocktakeReport } from '@osier/contract';
import { csvLine } from '@osier/core/address';
import { groupedBarcode } from '@osier/core/barcodes';
import {
  branchesOf,
  COPY_OUTCOMES,
  FINDING_KINDS,
  lossOf,
  type StockFindingKind,
} from '@osier/core/stocktake';
import { notFound, wrong } from '../http/problem';
import { copiesOfStretch, countOutcomes, outcomesBy, type AfterPlace } from '../projections/stocktake-views';
import { stocktakeState } from '../projections/stocktakes';
import { keptJson } from '../store/kept-json';
import type { Store } from '../store/store';
import { placeNames } from './places';
import { closedBefore, scansByPerson } from './queries';
import { findingPage } from './view';

/** The report of a stocktake: as it was kept when it was closed, else as it stands. */
export async function keptReport(store: Store, id: number): Promise<StocktakeReport> {
  const stocktake = await store.read('stocktake', id);
  if (!stocktake) throw notFound(`Stocktake ${id}`);
  const kept = stocktake.value.state === 'closed' ? (await stocktakeState(store, id))?.result : null;
  return kept ? keptJson<StocktakeReport>(kept) : reportOf(store, id);
}

/** What a stocktake found so far, counted. */
export async function reportOf(store: Store, id: number): Promise<StocktakeReport> {
  const stocktake = await store.read('stocktake', id);
  const { placeName } = await placeNames(store);
  const outcomes = await countOutcomes(store, id);
  const before = stocktake && (await closedBefore(store, stocktake.value.stretch, id));
  const [classes, locations] = [
    await outcomesBy(store, id, 'class'),
    await outcomesBy(store, id, 'location'),
  ];
  return {
    outcomes,
    classes: grouped(byTens(classes), (name) => name || 'no class'),
    locations: grouped(locations, (code) =>
      placeName(code, stocktake ? branchesOf(stocktake.value.stretch).length > 1 : false),
    ),
    people: await scansByPerson(store, id),
    lossRate: lossOf(outcomes).rate,
    lastTime: before
      ? {
          ...{ id: before.id, name: before.name, closedOn: before.closedOn },
          lossRate: keptJson<StocktakeReport>(before.report).lossRate,
        }
      : null,
  };
}

/** More classes than this are put together by tens. */
const MOST_CLASSES = 40;

/** Dewey classes by tens where there are many of them: 746 with 740. */
function byTens<R extends { readonly name: string }>(rows: readonly R[]): readonly R[] {
  if (new Set(rows.map((r) => r.name)).size <= MOST_CLASSES) return rows;
  return rows.map((r) => (/^\d{3}$/.test(r.name) ? { ...r, name: `${r.name.slice(0, 2)}0` } : r));
}

function grouped(
  rows: readonly { readonly name: string; readonly outcome: number; readonly n: number }[],
  nameOf: (name: string) => string,
): StocktakeReport['classes'] {
  const groups = new Map<string, Record<string, number>>();
  for (const { name, outcome, n } of rows) {
    const own = groups.get(name) ?? {};
    const of = COPY_OUTCOMES[outcome] ?? 'other';
    groups.set(name, { ...own, [of]: (own[of] ?? 0) + n });
  }
  return [...groups].map(([name, outcomes]) => ({ name: nameOf(name), outcomes }));
}

/** Rows that are read at once for a file. */
const AT_ONCE = 1000;

/** All copies of a stretch with what became of them, or findings of one kind or all, as lines of a table. */
export function exportLines(store: Store, id: number, of: string): AsyncGenerator<string> {
  if (of === 'copies') return copyLines(store, id);
  const kinds = of === 'findings' ? FINDING_KINDS : FINDING_KINDS.filter((k) => k === of);
  if (kinds.length === 0) throw wrong('of', `There is no list of “${of}”.`);
  return findingLines(store, id, kinds);
}

async function* copyLines(store: Store, id: number): AsyncGenerator<string> {
  yield `\ufeff${csvLine(['Barcode', 'Call number', 'Title', 'Branch', 'Location', 'Type', 'Outcome', 'Settled'])}`;
  let after: AfterPlace = { shelfKey: '', barcode: '' };
  for (;;) {
    const rows = await copiesOfStretch(store, id, null, after, AT_ONCE);
    yield rows
      .map((r) =>
        csvLine([
          r.barcode,
          r.callNumber,
          r.title,
          r.branch,
          r.location,
          r.type,
          COPY_OUTCOMES[r.outcome] ?? '',
          r.settled ? settledText(r.settled) : '',
        ]),
      )
      .join('');
    const last = rows.at(-1);
    if (last === undefined || rows.length < AT_ONCE) return;
    after = last;
  }
}

const settledText = (kept: string): string => {
  const { how, on, by } = keptJson<{ how: string; on: string; by: string }>(kept);
  return `${how}, ${on}, ${by}`;
};

async function* findingLines(
  store: Store,
  id: number,
  kinds: readonly StockFindingKind[],
): AsyncGenerator<string> {
  yield `\ufeff${csvLine(['Finding', 'Code', 'Call number', 'Title', 'Location', 'What', 'Settled'])}`;
  for (const kind of kinds)
    for (let after: string | undefined; ;) {
      const { rows, next }: Awaited<ReturnType<typeof findingPage>> = await findingPage(
        store,
        id,
        kind,
        after,
      );
      yield rows
        .map((f) =>
          csvLine([
            ...[f.kind, groupedBarcode(f.code), f.callNumber, f.title, f.location],
            [f.message, f.others.join(' ')].filter(Boolean).join(' '),
            f.settled ? `${f.settled.how}, ${f.settled.on}, ${f.settled.by}` : '',
          ]),
        )
        .join('');
      if (next === null) break;
      after = next;
    }
}
