import { cleanScan } from '@osier/core/barcodes';
import { insertRows } from '../store/insert';
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
  isOpen: (store: Store) => Promise<unknown>,
): Promise<number> {
  const codes = raw.map(cleanScan).filter(Boolean);
  const at = new Date().toISOString();
  await store.write(async (tx) => {
    await isOpen(store.within(tx));
    const rows = codes.map((code) => [purpose, work, code, at, person]);
    await insertRows(store, 'INSERT', 'scans', ['purpose', 'work', 'code', 'at', 'person'], rows, tx);
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
