import type { RulesTried } from '@osier/contract';
import { triedOn, type BarcodeRule } from '@osier/core/barcodes';
import type { Services } from '../services';
import { barcodesBehind } from './queries';

const AT_ONCE = 5000;
const SHOWN = 10;

/** How rules for barcodes fare with those that the copies of the library have; they are read a piece at a time. */
export async function tryBarcodes(
  { store: { aside: store } }: Services,
  rules: readonly BarcodeRule[],
  signal: AbortSignal,
): Promise<RulesTried> {
  let [fit, of] = [0, 0];
  const not: RulesTried['not'][number][] = [];
  for (let after = 0; ;) {
    signal.throwIfAborted();
    const rows = await barcodesBehind(store, after, AT_ONCE);
    const last = rows.at(-1);
    if (!last) return { fit, of, not };
    const tried = triedOn(
      rules,
      rows.map((r) => r.barcode),
      SHOWN - not.length,
    );
    fit += tried.fit;
    of += tried.of;
    not.push(...tried.not);
    after = last.id;
  }
}
