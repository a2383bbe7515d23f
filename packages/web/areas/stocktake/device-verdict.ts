import { scanForms } from '@osier/core/barcodes';
import { cleanCode, isCoverNumber } from '@osier/core/stocktake';
import type { ScanAnswer } from '@osier/contract';
import type { KeptCopy } from './walk-store';
import { stocktakeWords as wording } from './words';

/** What is said of a scan on the walk: what the server says, that the device alone cannot say it, or that it was undone. */
export type WalkVerdict = Omit<ScanAnswer['verdicts'][number], 'outcome'> & {
  readonly outcome: ScanAnswer['verdicts'][number]['outcome'] | 'kept' | 'undone';
};

/** The copies of a stretch by barcode, and what was scanned of them on this device. */
export interface DeviceShelf {
  readonly copies: ReadonlyMap<string, KeptCopy>;
  readonly seen: ReadonlySet<string>;
  /** The copy scanned just before; null for none. */
  readonly before: KeptCopy | null;
}

/** The copy that a scan means, among those of the stretch. */
export function copyOnDevice(raw: string, copies: ReadonlyMap<string, KeptCopy>): KeptCopy | undefined {
  for (const form of [...scanForms(raw), cleanCode(raw)]) {
    const copy = copies.get(form);
    if (copy) return copy;
  }
  return undefined;
}

/** What a device can say of a scan at once and without network; `kept` where only the server knows. */
export function deviceVerdict(
  raw: string,
  location: string,
  { copies, seen, before }: DeviceShelf,
): WalkVerdict {
  const copy = copyOnDevice(raw, copies);
  const code = copy?.barcode ?? cleanCode(raw);
  const said = (outcome: WalkVerdict['outcome'], message: string): WalkVerdict => ({
    ...{ code, outcome, message, jumped: null },
    title: copy?.title ?? '',
    callNumber: copy?.callNumber ?? '',
  });
  if (!copy)
    return isCoverNumber(code) ? said('unknown', wording.coverNumber) : said('kept', wording.checkedLater);
  if (copy.status === 'other' || copy.status === 'on loan') return said('kept', wording.checkedLater);
  if (location !== '' && copy.location !== location) return said('should-not-be-here', wording.otherLocation);
  if (seen.has(code)) return said('scanned before', wording.scannedBefore);
  if (before && before.location === copy.location && copy.shelfKey < before.shelfKey)
    return said('out-of-order', wording.belongsBefore(before.callNumber));
  return said('in place', '');
}

/** The copy of the stretch that stands behind one and was not scanned on this device. */
export function nextOnDevice(
  copies: readonly KeptCopy[],
  seen: ReadonlySet<string>,
  after: KeptCopy,
): KeptCopy | null {
  const at = copies.findIndex((c) => c.barcode === after.barcode);
  return (
    copies.find(
      (c, i) => i > at && c.location === after.location && c.status !== 'other' && !seen.has(c.barcode),
    ) ?? null
  );
}
