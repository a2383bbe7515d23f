import { withBarcodeProblems } from '@osier/core/deliveries';
import { copiesFrom, copyProblems, costIn, type ProposedCopy } from '@osier/core/holdings';
import type { MarcRecord } from '@osier/core/marc';
import { sameValue } from '@osier/core/changes';
import type { Store } from '../store/store';
import { withdrawnBarcodes } from '../copies/barcodes';
import { copiesByBarcode } from './queries';
import type { CopyWork } from './settings';

/** The titles that have these barcodes, by barcode. */
export async function takenBarcodes(
  store: Store,
  barcodes: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  const wanted = [...new Set(barcodes)].filter(Boolean);
  if (wanted.length === 0) return new Map();
  const found = await copiesByBarcode(store, wanted);
  return new Map(found.map((f) => [f.barcode, f.title]));
}

/**
 * Copies with what is wrong with their barcodes: form, roll, taken, and, with `seen`, twice in the file. `seen` learns the
 * barcodes of these records.
 */
export async function checkedCopies(
  store: Store,
  work: CopyWork,
  rows: readonly { readonly seq: number; readonly copies: readonly ProposedCopy[] }[],
  seen: Map<string, number> = new Map(),
): Promise<ProposedCopy[][]> {
  const barcodes = rows.flatMap((r) => r.copies.map((c) => c.barcode)).filter(Boolean);
  const [taken, withdrawn] = [await takenBarcodes(store, barcodes), await withdrawnBarcodes(store, barcodes)];
  return rows.map(({ seq, copies }) => {
    const checked = withBarcodeProblems(copies, {
      rules: work.rules.house.barcodes,
      roll: work.roll,
      rolls: work.rolls,
      takenBy: (barcode) => taken.get(barcode) ?? null,
      withdrawnFrom: (barcode) => withdrawn.get(barcode) ?? null,
      seenIn: (barcode) => {
        const at = seen.get(barcode);
        return at === undefined || at === seq ? null : at;
      },
    });
    for (const { barcode } of copies) if (barcode && !seen.has(barcode)) seen.set(barcode, seq);
    return checked;
  });
}

/** Copies as a person changed them, with what is wrong with them now. */
export const asChanged = (
  copies: readonly Omit<ProposedCopy, 'problems'>[],
  work: CopyWork,
): ProposedCopy[] =>
  copies.map(({ price, currency, ...c }) => ({
    ...c,
    ...costIn(work.rules.house.currency, price, currency),
    problems: copyProblems(c, work.rules.lists),
  }));

/**
 * The copies of a record whose fields were changed: read anew where the fields that they come from changed, else as they
 * were, so that copies changed by hand stay.
 */
export function copiesAfter(
  before: MarcRecord,
  after: MarcRecord,
  now: readonly ProposedCopy[],
  work: CopyWork,
): { copies: readonly ProposedCopy[]; anew: boolean } {
  const next = copiesFrom(after, work.rules);
  return sameValue(copiesFrom(before, work.rules), next)
    ? { copies: now, anew: false }
    : { copies: next, anew: true };
}
