import { shouldNotBeHere, unknownCode, type ReconcileOptions, type StockFinding } from './reconcile';
import { outsideStretch, type ShelfCopy, type Stretch } from './stretch';

/** What is said of one scan at once, without looking at the rest of the walk. */
export interface ScanVerdict {
  readonly code: string;
  readonly outcome: 'in place' | 'out-of-order' | 'should-not-be-here' | 'unknown' | 'scanned before';
  readonly title: string;
  readonly callNumber: string;
  /** What is wrong, as a sentence; '' when nothing is. */
  readonly message: string;
}

/** What a verdict on one scan is made from. */
export interface OneScan {
  readonly code: string;
  /** The copy that has the code; null for none. */
  readonly copy: ShelfCopy | null;
  /** The copy of the stretch that was scanned just before; null for none. */
  readonly before: ShelfCopy | null;
  /** The code was scanned before. */
  readonly again: boolean;
  /** ISO date on which the code was withdrawn, or null. */
  readonly withdrawn: string | null;
  readonly isMissingHere: (code: string) => boolean;
}

/** The verdict on one scan: a misplaced copy is one that belongs before the copy scanned just before it. */
export function scanVerdict(
  stretch: Stretch,
  scan: OneScan,
  options: Pick<ReconcileOptions, 'branchName' | 'locationName'>,
): ScanVerdict {
  const { code, copy, before } = scan;
  if (!copy) {
    const withdrawn = new Map(scan.withdrawn === null ? [] : [[code, scan.withdrawn]]);
    return said(code, null, unknownCode(code, withdrawn, scan.isMissingHere));
  }
  const finding = shouldNotBeHere(copy, outsideStretch(copy, stretch), options);
  if (finding) return said(code, copy, finding);
  const { title, callNumber } = copy;
  if (scan.again) return { code, title, callNumber, outcome: 'scanned before', message: 'Scanned before.' };
  if (before && copy.shelfKey < before.shelfKey)
    return {
      ...{ code, title, callNumber, outcome: 'out-of-order' },
      message: `Out of order: it belongs before ${before.callNumber}, which was scanned just before it.`,
    };
  return { code, title, callNumber, outcome: 'in place', message: '' };
}

const said = (code: string, copy: ShelfCopy | null, { kind, message }: StockFinding): ScanVerdict => ({
  code,
  outcome: kind === 'unknown' ? 'unknown' : 'should-not-be-here',
  title: copy?.title ?? '',
  callNumber: copy?.callNumber ?? '',
  message,
});
