import type { ScanAnswer, ScanBody } from '@osier/contract';
import type { StoredObject } from '@osier/core/kinds';
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
import {
  expectedUnseen,
  lastOfWalk,
  nextExpected,
  shelfCopy,
  timesSeen,
  unseenBetween,
} from '../projections/stocktake-places';
import { addSeen, madeOnes, takeSeen } from '../projections/stocktake-scans';
import { markStocktakes, stocktakeState } from '../projections/stocktakes';
import { addScans, lastScanOf } from '../scanner/scans';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { placeNames } from './places';
import { stocktakeToScan } from './stocktake';

/** Verdicts of one answer. */
const ANSWERED = 20;

/**
 * Adds scans as they are made and says what each of the last few is, what stands next, and how far the walk is. What is sent
 * again (the same device, run and number) is counted once and answered all the same.
 */
export async function scanInto(
  services: Services,
  person: number,
  id: number,
  { codes, times, from }: ScanBody,
): Promise<ScanAnswer> {
  const { store } = services;
  const stocktake = await stocktakeToScan(store, id, person);
  const { device, run, location } = from ?? { device: '', run: '', location: '' };
  const before = await lastOfWalk(store, id, device, run);
  const added = await addScans(store, {
    ...{ purpose: 'stocktake', work: id, person, raw: codes, from: from ?? null, times },
    check: async (inside) => void (await stocktakeToScan(inside, id, person)),
    also: async (inside, fresh, tx) => {
      for (const walk of madeOnes(fresh)) await addSeen(inside, id, walk, tx);
      if (fresh.length) await markStocktakes(inside, [id], tx, true);
    },
  });
  const house = (await store.house()).value;
  const verdicts: ScanVerdict[] = [];
  let last = before ? await copyNow(services, id, before.barcode) : null;
  for (const code of added.codes.slice(-ANSWERED)) {
    const { verdict, copy } = await verdictOn(services, stocktake, house, { code, location, before: last });
    verdicts.push(verdict);
    if (copy && (verdict.outcome === 'in place' || verdict.outcome === 'out-of-order')) last = copy;
  }
  return {
    added: added.fresh,
    verdicts,
    next: (last && (await nextExpected(store, id, last))) ?? null,
    ...(await howFar(store, id)),
  };
}

/** How many copies are expected, and how many of them were scanned. */
async function howFar(store: Store, id: number): Promise<{ expected: number; found: number }> {
  const { expected = 0, found = 0 } = (await stocktakeState(store, id)) ?? {};
  return { expected, found };
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
  return { code, ...(await howFar(store, id)) };
}

type PlacedCopy = ScannedCopy & { readonly isOfStretch: number };

async function verdictOn(
  services: Services,
  { id, value }: StoredObject<'stocktake'>,
  house: HouseRules,
  {
    code,
    location,
    before,
  }: { readonly code: string; readonly location: string; readonly before: PlacedCopy | null },
): Promise<{ verdict: ScanVerdict; copy: PlacedCopy | null }> {
  const { store } = services;
  const copy = (await copyNow(services, id, code)) ?? (await withdrawnCopy(store, code));
  const names = await placeNames(store);
  const wrongPlace = (c: PlacedCopy) => {
    const outside = c.isOfStretch ? null : stretchTest(value.stretch)(c);
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
      again: (await timesSeen(store, id, code)) > 1,
      between: last && copy ? await unseenBetween(store, id, last, copy) : 0,
      ...(copy ? { why: 'not_in_file', near: [] } : await strayed(store, id, house, code)),
    },
    value.jump ?? { when: 'never' },
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
async function copyNow({ store, loans }: Services, id: number, barcode: string): Promise<PlacedCopy | null> {
  const row = await shelfCopy(store, id, barcode);
  if (!row) return null;
  const said = loans.configured ? await askSoon(loans, [barcode]) : null;
  if (said?.of(barcode).state !== 'on loan') return row;
  await keepLoans(store, id, [barcode], said);
  return { ...row, status: 'on loan' };
}

/** A copy that was withdrawn, as the register has it. */
async function withdrawnCopy(store: Store, barcode: string): Promise<PlacedCopy | null> {
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
  };
}
