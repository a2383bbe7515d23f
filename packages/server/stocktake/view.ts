import type { ShelfPage, StockFindingRow, StocktakeDetail, StripPart } from '@osier/contract';
import {
  COPY_OUTCOMES,
  swappedClasses,
  whereToLook,
  type CopyOutcome,
  type Settled,
  type Spine,
  type StockFinding,
  type StockFindingKind,
} from '@osier/core/stocktake';
import { cursorOf, placeIn } from '../http/cursor';
import { notFound } from '../http/problem';
import { noticesOfStocktake } from '../projections/loans-to-tell';
import { countAsked } from '../projections/stocktake-loans';
import { stampOf } from '../projections/stocktake-reckoning';
import {
  classesThere,
  clues,
  copiesOfStretch,
  countKinds,
  countOutcomes,
  findingsOfKind,
  neighboursOf,
  runsOfStocktake,
  stripPart,
  stripParts,
  type AfterPlace,
  type KeptFinding,
  type StretchCopy,
} from '../projections/stocktake-views';
import { stocktakeState } from '../projections/stocktakes';
import type { Services } from '../services';
import { keptJson } from '../store/kept-json';
import type { Store } from '../store/store';
import { placeNameOf, placeNames } from './places';
import { isBeingClosed } from './queries';
import { asShown } from './stocktake';

/** A stocktake with how shelf and records compare, as it was reckoned last. */
export async function stocktakeDetail({ store, loans }: Services, id: number): Promise<StocktakeDetail> {
  const stocktake = await store.read('stocktake', id);
  if (!stocktake) throw notFound(`Stocktake ${id}`);
  const { version, value } = stocktake;
  const state = await stocktakeState(store, id);
  const outcomes = await countOutcomes(store, id);
  const isOpen = value.state !== 'closed';
  const isStopped = value.state === 'closing' && !(await isBeingClosed(store, id));
  const shown = asShown(isStopped ? { ...value, state: 'open' } : value);
  const { expected = 0, found = 0, scans = 0, findings = null } = state ?? {};
  return {
    ...{ id, version, stocktake: shown, expected, found, scans, findings, outcomes },
    placeName: placeNameOf(value, await placeNames(store)),
    comparing: (await stampOf(store, id)) !== null,
    kinds: await countKinds(store, id),
    runs: await runsOfStocktake(store, id),
    toTell: loans.configured ? await noticesOfStocktake(store, id) : { waiting: 0, refused: [] },
    loans: isOpen && loans.configured ? { asked: await countAsked(store, id), of: total(outcomes) } : null,
  };
}

const total = (counts: Readonly<Record<string, number>>): number =>
  Object.values(counts).reduce((sum, n) => sum + n, 0);

/** Rows of a page. */
const PAGE = 100;

/** What was done about a finding, as it is shown. */
const settledNote = (kept: string | null): StockFindingRow['settled'] => {
  if (kept === null) return null;
  const { how, on, by } = keptJson<Settled>(kept);
  return { how, on, by };
};

/** A kept finding as it is shown. */
export const shownFinding = ({ detail, settled }: KeptFinding): StockFindingRow => {
  const { acts, others, ...rest } = keptJson<StockFinding>(detail);
  return { ...rest, acts: [...acts], others: [...others], settled: settledNote(settled) };
};

const SAYS: Readonly<Record<CopyOutcome, string>> = {
  stood: '',
  missing: 'Expected here and not scanned.',
  skipped: 'On a shelf that was not scanned.',
  'on loan': 'On loan.',
  'seen since': 'Seen since the day that counts.',
  other: 'Not expected on the shelf by its status.',
};

/** A copy of a stretch as a finding is shown. */
export function shownCopy(copy: StretchCopy): StockFindingRow {
  const outcome = COPY_OUTCOMES[copy.outcome] ?? 'other';
  return {
    ...{ kind: 'missing', code: copy.barcode, copy: copy.copy, record: copy.record, title: copy.title },
    ...{ callNumber: copy.callNumber, location: copy.location, message: SAYS[outcome], others: [], count: 1 },
    acts: outcome === 'missing' || outcome === 'skipped' ? ['mark-missing', 'done'] : [],
    settled: settledNote(copy.settled),
  };
}

interface Page {
  readonly rows: StockFindingRow[];
  readonly next: string | null;
}

/** Behind which copy a page begins. */
function behindCopy(after: string | undefined): AfterPlace {
  const [shelfKey, barcode] = placeIn<readonly [string, string]>(after, ['', '']) ?? ['', ''];
  return { shelfKey, barcode };
}

/** Where the page behind a copy begins. */
const copyCursor = ({ shelfKey, barcode }: AfterPlace): string => cursorOf([shelfKey, barcode]);

/** Behind which finding a page begins. */
function behindFinding(after: string | undefined): { readonly place: number; readonly code: string } {
  const [place, code] = placeIn<readonly [number, string]>(after, [0, '']) ?? [-1, ''];
  return { place, code };
}

/** A page of copies with one outcome. */
export async function outcomePage(
  store: Store,
  id: number,
  outcome: CopyOutcome,
  after?: string,
): Promise<Page> {
  const rows = await copiesOfStretch(store, id, outcome, behindCopy(after), PAGE);
  const last = rows.length === PAGE ? rows.at(-1) : undefined;
  return {
    rows: rows.map(shownCopy),
    next: last ? copyCursor(last) : null,
  };
}

/** Missing copies with where each is looked for. */
async function withPlaces(store: Store, id: number, rows: StockFindingRow[]): Promise<StockFindingRow[]> {
  const swapped = rows.map((r) => swappedClasses(r.callNumber));
  const ids = rows.flatMap((r) => r.copy ?? []);
  const near = new Map((await neighboursOf(store, id, ids)).map((n) => [n.barcode, n]));
  const known = new Map((await clues(store, id, ids)).map((c) => [c.copy, c]));
  const there = await classesThere(store, id, [...new Set(swapped.flat())]);
  return rows.map((row, i) => {
    const { after = null, before = null } = near.get(row.code) ?? {};
    const { lastSeen = '', ofAuthor = '[]' } = known.get(row.copy ?? 0) ?? {};
    const classes = swapped[i]!.filter((c) => there.has(c));
    return {
      ...row,
      message: whereToLook(after, before, { classes, ofAuthor: keptJson<string[]>(ofAuthor), lastSeen }),
    };
  });
}

/** A page of findings of one kind. */
export async function findingPage(
  store: Store,
  id: number,
  kind: StockFindingKind,
  after?: string,
): Promise<Page> {
  if (kind === 'missing') {
    const page = await outcomePage(store, id, 'missing', after);
    return { ...page, rows: await withPlaces(store, id, page.rows) };
  }
  const rows = await findingsOfKind(store, id, kind, behindFinding(after), PAGE);
  const last = rows.length === PAGE ? rows.at(-1) : undefined;
  return {
    rows: rows.map(shownFinding),
    next: last ? cursorOf([last.place, last.code]) : null,
  };
}

/** The pieces of the pictures of all walks. */
export const stripOf = async (store: Store, id: number): Promise<StripPart[]> =>
  (await stripParts(store, id)).map(({ run, part, states }) => ({
    ...{ run, part },
    states: keptJson<Record<string, number>>(states),
  }));

/** The spines of one piece; none when there is no such piece (any more). */
export async function spinesOfPart(store: Store, id: number, run: number, part: number) {
  const found = await stripPart(store, id, run, part);
  return found ? keptJson<Spine[]>(found.spines).map(shownSpine) : [];
}
/** Spines of stocktakes that were closed long ago say less. */
const shownSpine = ({
  copy = null,
  record = null,
  ...rest
}: Partial<Spine> & Omit<Spine, 'copy' | 'record'>) => ({
  ...rest,
  ...{ copy, record },
});

/** Copies of a page that goes to a device. */
const ON_DEVICE = 2000;

/** Copies of a stretch in the order of the shelf, for a device that walks without network. */
export async function shelfPage(store: Store, id: number, after?: string): Promise<ShelfPage> {
  const rows = await copiesOfStretch(store, id, null, behindCopy(after), ON_DEVICE);
  const last = rows.length === ON_DEVICE ? rows.at(-1) : undefined;
  return {
    rows: rows.map(({ barcode, shelfKey, callNumber, title, location, outcome }) => ({
      ...{ barcode, shelfKey, callNumber, title, location },
      status: COPY_OUTCOMES[outcome] ?? 'other',
    })),
    next: last ? copyCursor(last) : null,
  };
}
