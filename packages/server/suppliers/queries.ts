import type { Store } from '../store/store';

/** Barcodes in a span, of one length, that waiting records bring. */
export async function barcodesBrought(
  store: Store,
  span: { readonly from: string; readonly to: string; readonly length: number },
): Promise<string[]> {
  const rows = await store.rows<{ barcode: string }>(
    `SELECT json_extract(c.value, '$.barcode') AS barcode FROM incoming i, json_each(i.value, '$.copies') c
     WHERE i.state = 'waiting' AND i.copies > 0 AND json_extract(c.value, '$.barcode') BETWEEN :from AND :to
       AND length(json_extract(c.value, '$.barcode')) = :length`,
    { ...span },
  );
  return rows.map((r) => r.barcode);
}
