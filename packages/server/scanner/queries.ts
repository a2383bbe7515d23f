import type { Transaction } from '../store/database';
import type { ScanColumns } from '../store/models';
import type { Store } from '../store/store';

/** Keeps scans, but for those of a device and run whose numbers were kept before; what was undone does not come again. Gives those that were kept, in their order. */
export async function insertFresh(
  store: Store,
  purpose: 'stocktake' | 'withdrawal',
  work: number,
  scans: readonly Omit<ScanColumns, 'id' | 'purpose' | 'work'>[],
  tx: Transaction,
): Promise<ScanColumns[]> {
  if (scans.length === 0) return [];
  const kept = await store.rows<ScanColumns>(
    `WITH sent AS (SELECT key, value ->> 'code' AS code, value ->> 'at' AS at, value ->> 'person' AS person, value ->> 'device' AS device, value ->> 'run' AS run,
         value ->> 'number' AS number, value ->> 'location' AS location FROM json_each(:scans))
     INSERT INTO scans (purpose, work, code, at, person, device, run, number, location)
       SELECT :purpose, :work, code, at, person, device, run, number, location FROM sent v
         WHERE NOT EXISTS (SELECT 1 FROM scans s WHERE s.purpose IN (:purpose, 'undone') AND s.work = :work AND s.device <> ''
           AND s.device = v.device AND s.run = v.run AND s.number = v.number) ORDER BY v.key
       RETURNING id, purpose, work, code, at, person, device, run, number, location`,
    { purpose, work, scans: JSON.stringify(scans) },
    tx,
  );
  return kept.toSorted((a, b) => a.id - b.id);
}
