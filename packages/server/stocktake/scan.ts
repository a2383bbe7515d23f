import type { ScanAnswer, ScanBody } from '@osier/contract';
import { nearMisses } from '@osier/core/barcodes';
import type { StoredObject } from '@osier/core/kinds';
import { scanVerdict, type ScanVerdict, type ShelfCopy } from '@osier/core/stocktake';
import {
  addSeen,
  asScanned,
  expectedUnseen,
  lastExpectedSeen,
  nextExpected,
  shelfCopy,
  stocktakeState,
  timesSeen,
} from '../projections/stocktakes';
import { addScans } from '../scanner/scans';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { lastWithdrawn } from '../catalogue/search';
import { placeNames } from './reconciled';
import { openStocktake } from './stocktake';

/** So long a scan waits for the loans desk, in milliseconds; a slow desk is heard later, with the findings. */
const LOAN_PATIENCE = 400;

/**
 * Adds scans as they are made and says what each of the last few is, what stands next, and how far the walk is. What is sent
 * again (the same device, run and number) is counted once and answered all the same.
 */
export async function scanInto(
  services: Services,
  person: number,
  id: number,
  { codes, from }: ScanBody,
): Promise<ScanAnswer> {
  const { store } = services;
  const stocktake = await openStocktake(store, id);
  const before = await lastExpectedSeen(store, id);
  const added = await addScans(store, {
    ...{ purpose: 'stocktake', work: id, person, raw: codes, from: from ?? null },
    check: async (inside) => void (await openStocktake(inside, id)),
    also: (inside, fresh, tx) => addSeen(inside, id, fresh.map(asScanned), tx),
  });
  const verdicts: ScanVerdict[] = [];
  let last = before ? await shelfCopyNow(services, before.barcode) : null;
  for (const code of added.codes.slice(-ANSWERED)) {
    const { verdict, copy } = await verdictOn(services, stocktake, code, last);
    verdicts.push(verdict);
    if (copy && (verdict.outcome === 'in place' || verdict.outcome === 'out-of-order')) last = copy;
  }
  const state = await stocktakeState(store, id);
  const next = last ? await nextExpected(store, id, last.shelfKey, last.barcode) : undefined;
  return {
    added: added.fresh,
    verdicts,
    next: next ?? null,
    expected: state?.expected ?? 0,
    found: state?.found ?? 0,
  };
}
const ANSWERED = 20;

async function verdictOn(
  { store, ...services }: Services,
  { id, value }: StoredObject<'stocktake'>,
  code: string,
  before: ShelfCopy | null,
): Promise<{ verdict: ScanVerdict; copy: ShelfCopy | null }> {
  const copy = await shelfCopyNow({ store, ...services }, code);
  const missing = new Set(copy ? [] : await nearExpected(store, id, code));
  const withdrawn = copy ? undefined : await lastWithdrawn(store, code);
  const verdict = scanVerdict(
    value.stretch,
    {
      ...{ code, copy },
      before: before?.barcode === code ? null : before,
      again: (await timesSeen(store, id, code)) > 1,
      withdrawn: withdrawn?.value.withdrawnOn ?? null,
      isMissingHere: (near) => missing.has(near),
    },
    await placeNames(store),
  );
  return { verdict, copy };
}

/** Barcodes that one slip leads to, of copies that are expected and were not scanned. */
async function nearExpected(store: Store, id: number, code: string): Promise<string[]> {
  const tried: string[] = [];
  nearMisses(code, (near) => (tried.push(near), false));
  return expectedUnseen(store, id, tried);
}

/** A copy as it stands now, on loan if the desk says so in time. */
async function shelfCopyNow({ store, loans }: Services, barcode: string): Promise<ShelfCopy | null> {
  const row = await shelfCopy(store, barcode);
  if (!row) return null;
  const silence = new Promise<null>((resolve) => setTimeout(() => resolve(null), LOAN_PATIENCE).unref());
  const said = await Promise.race([loans.ask([barcode]), silence]);
  return { ...row, onLoan: said?.of(barcode).state === 'on loan' };
}
