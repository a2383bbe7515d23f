import { readDewey } from '../callnumbers';
import type { UnknownWhy } from './code-sense';
import type { Outside } from './counted-copy';
import { elsewhereSays, foundSays, unknownSays, type PlaceNames } from './finding';
import type { JumpAlarm } from './objects';
import type { CopyPlace } from './stretch';

/** What a scan may be. */
export const SCAN_OUTCOMES = [
  'in place',
  'out-of-order',
  'should-not-be-here',
  'unknown',
  'scanned before',
] as const;

/** What is said of one scan at once, without looking at the rest of the walk. */
export interface ScanVerdict {
  readonly code: string;
  readonly outcome: (typeof SCAN_OUTCOMES)[number];
  readonly title: string;
  readonly callNumber: string;
  /** What is wrong, as a sentence; '' when nothing is. */
  readonly message: string;
  /** A shelf may have been passed just before: so many expected copies were not scanned, or null. */
  readonly jumped: number | null;
}

/** A copy that was just scanned. */
export interface ScannedCopy extends CopyPlace {
  readonly barcode: string;
  readonly title: string;
  readonly callNumber: string;
  /** As the records and the loans desk have it. */
  readonly status: string;
}

/** What a verdict on one scan is made from. */
export interface OneScan {
  readonly code: string;
  /** The copy that has the code; null for none. */
  readonly copy: ScannedCopy | null;
  /** What of its place is not where the walk is; null when it belongs there. */
  readonly outside: Outside | null;
  readonly isExpected: boolean;
  /** The copy of the stretch that was scanned just before; null for none. */
  readonly before: ScannedCopy | null;
  /** The code was scanned before. */
  readonly again: boolean;
  /** Expected copies between it and the one before that were not scanned. */
  readonly between: number;
  /** Of a code that no copy has. */
  readonly why: UnknownWhy;
  /** Barcodes of copies that it may be, the likeliest first. */
  readonly near: readonly string[];
}

/** The verdict on one scan: a misplaced copy is one that belongs before the copy scanned just before it. */
export function scanVerdict(scan: OneScan, alarm: JumpAlarm, names: PlaceNames): ScanVerdict {
  const { code, copy, before, near } = scan;
  const said = (outcome: ScanVerdict['outcome'], message: string): ScanVerdict => ({
    ...{ code, outcome, message, title: copy?.title ?? '', callNumber: copy?.callNumber ?? '' },
    jumped: null,
  });
  if (!copy)
    return said(
      'unknown',
      near.length ? `${unknownSays(scan.why)} Scan it once more.` : unknownSays(scan.why),
    );
  if (!scan.isExpected) return said('should-not-be-here', foundSays(copy.status));
  if (scan.outside !== null) return said('should-not-be-here', elsewhereSays(copy, scan.outside, names));
  if (scan.again) return said('scanned before', 'Scanned before.');
  if (before && copy.shelfKey < before.shelfKey)
    return said(
      'out-of-order',
      `Out of order: it belongs before ${before.callNumber}, which was scanned just before it.`,
    );
  return {
    ...said('in place', ''),
    jumped: before && jumps(alarm, before, copy, scan.between) ? scan.between : null,
  };
}

/** Whether a shelf may have been passed between two copies that were scanned one after the other. */
function jumps(alarm: JumpAlarm, before: ScannedCopy, copy: ScannedCopy, between: number): boolean {
  if (between === 0 || alarm.when === 'never') return false;
  if (alarm.when === 'copies') return between > alarm.number;
  const [from, to] = [classOf(before.callNumber), classOf(copy.callNumber)];
  return from !== null && to !== null && to - from >= alarm.difference;
}

/** A class as a number: of Dewey itself, of others the whole number behind its letters. */
function classOf(callNumber: string): number | null {
  const dewey = readDewey(callNumber);
  if (dewey) return Number(`${dewey.whole}.${dewey.decimals || '0'}`);
  const found = /^\s*[A-Z]{1,3}\s*(\d+)/i.exec(callNumber);
  return found ? Number(found[1]) : null;
}
