import { scanForms, scannedBarcode } from '@osier/core/barcodes';
import { barcodesInUse } from '../catalogue/queries';
import type { Store } from '../store/store';

/**
 * The barcodes that scans stand for, in their order: what came, where a copy has that; else what it is when made clean, where a copy has
 * that; else what the library's rules make of it. Scans of nothing give ''.
 */
export async function scannedCodes(store: Store, raws: readonly string[]): Promise<string[]> {
  const forms = raws.map(scanForms);
  const unsure = forms.filter((f) => f.length > 1).flat();
  const used = new Set(unsure.length ? await barcodesInUse(store, unsure) : []);
  const rules = unsure.length ? (await store.house()).value.barcodes : [];
  return forms.map((own, i) =>
    own.length > 1
      ? (own.find((code) => used.has(code)) ?? scannedBarcode(raws[i] ?? '', rules))
      : (own[0] ?? ''),
  );
}
