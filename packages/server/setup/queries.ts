import type { CodeLists } from '@osier/core/holdings';
import type { Store } from '../store/store';

/** A code of a list with how many holdings or copies have it. */
export interface CodeUse {
  readonly field: keyof CodeLists;
  readonly code: string;
  readonly n: number;
}

/** Every code that holdings and copies have. */
export const codesInUse = (store: Store): Promise<CodeUse[]> =>
  store.rows<CodeUse>(
    `SELECT 'branches' AS field, branch AS code, COUNT(*) AS n FROM holdings GROUP BY 2 UNION ALL
     SELECT 'locations', location, COUNT(*) FROM holdings GROUP BY 2 UNION ALL SELECT 'types', type, COUNT(*) FROM copies GROUP BY 2 UNION ALL
     SELECT 'funds', json_extract(value, '$.fund'), COUNT(*) FROM copies GROUP BY 2 UNION ALL
     SELECT 'suppliers', json_extract(value, '$.supplier'), COUNT(*) FROM copies GROUP BY 2`,
  );

/** Barcodes of copies behind one, in the order of their numbers. */
export const barcodesBehind = (
  store: Store,
  after: number,
  atMost: number,
): Promise<{ id: number; barcode: string }[]> =>
  store.rows<{ id: number; barcode: string }>(
    'SELECT id, barcode FROM copies WHERE id > :after ORDER BY id LIMIT :atMost',
    { after, atMost },
  );
