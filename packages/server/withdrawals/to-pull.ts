import type { ScanColumns } from '../store/models';

/** The device of codes that nobody scanned: they were put on the list from a pile or a stocktake, and are to be pulled from the shelf. */
export const TO_PULL = 'to pull';

/** A scan of a list; `pulled` tells of one that was to be pulled whether it was scanned, null of any other. */
export interface PulledScan {
  readonly scan: ScanColumns;
  readonly pulled: boolean | null;
}

/** The scans of a list as they stand there: what was to be pulled and is scanned is one row, not one scanned twice. */
export function withPulled(scans: readonly ScanColumns[]): PulledScan[] {
  const isToPull = (s: ScanColumns) => s.device === TO_PULL;
  const toPull = new Set(scans.filter(isToPull).map((s) => s.code));
  const scanned = new Set(scans.filter((s) => !isToPull(s)).map((s) => s.code));
  const stands = new Set<string>();
  return scans.flatMap((scan): PulledScan[] => {
    if (!toPull.has(scan.code)) return [{ scan, pulled: null }];
    // The code to pull and its first scan are the row; a second scan is one scanned twice.
    const key = `${scan.code} ${isToPull(scan) ? TO_PULL : ''}`;
    const isFirst = !stands.has(scan.code);
    const isRepeat = stands.has(key);
    stands.add(scan.code).add(key);
    if (!isFirst && (isToPull(scan) || !isRepeat)) return [];
    return [{ scan, pulled: scanned.has(scan.code) }];
  });
}
