import type { ScanAnswer, ScanBody } from '@osier/contract';
import {
  CodeSense,
  isCoverNumber,
  scanVerdict,
  shelfStatuses,
  SlipIndex,
  stretchTest,
  type ScannedCopy,
  type ScanVerdict,
  type UnknownWhy,
} from '@osier/core/stocktake';
import { nearMisses } from '@osier/core/barcodes';
import type { HouseRules } from '@osier/core/house';
import { lastWithdrawn } from '../catalogue/search';
import { askSoon } from '../loans/ask-soon';
import { keepLoans } from '../projections/stocktake-loans';
import { expectedUnseen, timesSeen, type ShelfPlace, type ShelfRow } from '../projections/stocktake-places';
import { takeSeen } from '../projections/stocktake-scans';
import { markStocktakes, stocktakeState } from '../projections/stocktakes';
import { lastScanOf, readyScans } from '../scanner/scans';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { ANSWERED, type KeepStocktakeScans, type KeptScans } from './scan-queue';
import type { ShelfAhead } from './shelf-ahead';
import { stocktakeToScan } from './stocktake';

/**
 * Adds scans as they are made and says what each of the last few is, what stands next, and how far the walk is. What is sent
 * again (the same device, run and number) is counted once and answered all the same.
 */
export async function scanInto(
  services: Services,
  { keep, ahead }: { readonly keep: KeepStocktakeScans; readonly ahead: ShelfAhead },
  person: number,
  id: number,
  { codes, times, from }: ScanBody,
): Promise<ScanAnswer> {
  const { store } = services;
  const location = from?.location ?? '';
  const ready = await readyScans(store, { person, raw: codes, from: from ?? null, times });
  const kept = await keep(id, ready);
  const verdicts: ScanVerdict[] = [];
  let last: PlacedCopy | null = kept.before;
  for (const { code } of ready.scans.slice(-ANSWERED)) {
    const { verdict, copy } = await verdictOn({ ...services, ahead }, kept, { code, location, before: last });
    verdicts.push(verdict);
    if (copy && (verdict.outcome === 'in place' || verdict.outcome === 'out-of-order')) last = copy;
  }
  const next = last && (await ahead.next(placeIn(id, last)));
  return { added: kept.fresh, verdicts, next, ...kept.far };
}

/** Takes back the last scan of a walk; gives its code, null when there is none. */
export async function undoScan(
  { store }: Services,
  person: number,
  id: number,
  walk: { readonly device: string; readonly run: string },
): Promise<{ code: string | null; expected: number; found: number }> {
  const code = await store.write(async (tx) => {
    const inside = store.within(tx);
    await stocktakeToScan(inside, id, person);
    const last = await lastScanOf(inside, 'stocktake', id, walk);
    if (!last) return null;
    // What is sent again afterwards must not come back: its number stays taken.
    await inside.table('scans').update({ purpose: 'undone', work: id }, { id: last.id }, tx);
    await takeSeen(inside, id, last, tx);
    await markStocktakes(inside, [id], tx, true);
    tx.whenStored(() => store.feed.tell({ entry: null, kinds: { stocktake: [id] } }));
    return last.code;
  });
  const { expected = 0, found = 0 } = (await stocktakeState(store, id)) ?? {};
  return { code, expected, found };
}

const placeIn = (stocktake: number, { location, shelfKey, barcode }: PlacedCopy): ShelfPlace => ({
  ...{ stocktake, location, shelfKey, barcode },
});

type PlacedCopy = ScannedCopy & Pick<ShelfRow, 'isOfStretch' | 'timesSeen'>;

async function verdictOn(
  services: Services & { readonly ahead: ShelfAhead },
  { stocktake: { id, value }, copies, house, names }: KeptScans,
  {
    code,
    location,
    before,
  }: { readonly code: string; readonly location: string; readonly before: PlacedCopy | null },
): Promise<{ verdict: ScanVerdict; copy: PlacedCopy | null }> {
  const { store } = services;
  const jump = value.jump ?? { when: 'never' };
  const row = copies.get(code);
  const copy = row ? await nowOf(services, id, row) : await withdrawnCopy(store, id, code);
  const wrongPlace = (c: PlacedCopy) => {
    const outside = c.isOfStretch ? null : stretchTest(value.stretch, house.prefixOrder)(c);
    if (outside !== null || location === '' || c.location === location) return outside;
    return (names.branchOf(location) ?? c.branch) === c.branch ? 'location' : 'branch';
  };
  const last =
    before && before.barcode !== code && (location === '' || before.location === location) ? before : null;
  const verdict = scanVerdict(
    {
      ...{ code, copy, before: last && copy && last.location === copy.location ? last : null },
      outside: copy && wrongPlace(copy),
      isExpected: copy !== null && shelfStatuses(house).includes(copy.status),
      again: (copy ? copy.timesSeen : await timesSeen(store, id, code)) > 1,
      between:
        last && copy && jump.when !== 'never'
          ? await services.ahead.between(placeIn(id, last), placeIn(id, copy))
          : 0,
      ...(copy ? { why: 'not_in_file', near: [] } : await strayed(store, id, house, code)),
    },
    jump,
    names,
  );
  return { verdict, copy };
}

/** Why nothing is known of a code, and the copies nobody scanned yet that it may be. */
async function strayed(
  store: Store,
  id: number,
  house: HouseRules,
  code: string,
): Promise<{ readonly why: UnknownWhy; readonly near: readonly string[] }> {
  const sense = CodeSense.ofRules(house.barcodes);
  const stranger = sense.stranger(code);
  if (stranger) return { why: stranger, near: [] };
  if (isCoverNumber(code)) return { why: 'isbn', near: [] };
  const tried: string[] = [];
  nearMisses(code, (near) => (tried.push(near), false));
  const unseen = await expectedUnseen(store, id, tried);
  const near = new SlipIndex(unseen, sense).near(code).flatMap((i) => unseen[i] ?? []);
  return { why: sense.isSound(code) ? 'not_in_file' : 'unreadable', near };
}

/** A copy as it stands now, on loan if the desk says so in time; what it says is kept. */
async function nowOf({ store, loans }: Services, id: number, row: ShelfRow): Promise<ShelfRow> {
  const said = loans.configured ? await askSoon(loans, [row.barcode]) : null;
  if (said?.of(row.barcode).state !== 'on loan') return row;
  await keepLoans(store, id, [row.barcode], said);
  return { ...row, status: 'on loan' };
}

/** A copy that was withdrawn, as the register has it. */
async function withdrawnCopy(store: Store, id: number, barcode: string): Promise<PlacedCopy | null> {
  const gone = (await lastWithdrawn(store, barcode))?.value;
  if (!gone) return null;
  const { title, callNumber, branch, location, copy } = gone;
  return {
    barcode,
    title,
    callNumber,
    branch,
    location,
    type: copy.type,
    shelfKey: '',
    status: 'withdrawn',
    isOfStretch: 0,
    timesSeen: await timesSeen(store, id, barcode),
  };
}
