import { cleanScan } from '@osier/core/barcodes';
import type { Store } from '../store/store';

export type ScanPurpose = 'withdrawal' | 'stocktake';
export interface ScanRow {
  id: number;
  code: string;
  at: string;
}

/** Scans are notes of a walk or a trolley, kept as they come; what is made of them goes through commit. */
export async function addScans(
  store: Store,
  purpose: ScanPurpose,
  work: number,
  person: number,
  raw: readonly string[],
): Promise<number> {
  const codes = raw.map(cleanScan).filter(Boolean);
  const at = new Date().toISOString();
  await store.write(async (tx) => {
    for (const code of codes)
      await store.run(
        'INSERT INTO scans (purpose, work, code, at, person) VALUES (:purpose, :work, :code, :at, :person)',
        { purpose, work, code, at, person },
        tx,
      );
  });
  return codes.length;
}

export const scansOf = (store: Store, purpose: ScanPurpose, work: number): Promise<ScanRow[]> =>
  store.rows<ScanRow>(
    'SELECT id, code, at FROM scans WHERE purpose = :purpose AND work = :work ORDER BY id',
    { purpose, work },
  );

export const removeScan = (store: Store, purpose: ScanPurpose, work: number, id: number): Promise<void> =>
  store.write((tx) =>
    store.run(
      'DELETE FROM scans WHERE purpose = :purpose AND work = :work AND id = :id',
      { purpose, work, id },
      tx,
    ),
  );
