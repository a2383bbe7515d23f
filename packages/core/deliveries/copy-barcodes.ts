import { barcodeProblem, groupedBarcode, serialIn, spoiledIn, type LabelRoll } from '../barcodes';
import type { HouseRules } from '../house';
import type { ProposedCopy } from '../holdings';

/** What barcodes of copies to come are looked at with. */
export interface BarcodeContext {
  readonly rules: HouseRules['barcodes'];
  /** The roll of this delivery. */
  readonly roll: LabelRoll | null;
  readonly rolls: readonly LabelRoll[];
  /** The title that has a barcode, or null. */
  readonly takenBy: (barcode: string) => string | null;
  /** That a withdrawn copy had it, as a sentence, or null. */
  readonly withdrawnFrom: (barcode: string) => string | null;
  /** The record of this delivery that had it before, or null. */
  readonly seenIn: (barcode: string) => number | null;
}

/** The copies with what is wrong with their barcodes. */
export const withBarcodeProblems = (
  copies: readonly ProposedCopy[],
  context: BarcodeContext,
): ProposedCopy[] => {
  const own = new Set<string>();
  return copies.map((copy) => {
    const problems = copy.barcode === '' ? withoutBarcode(context) : problemsOf(copy, context);
    if (copy.barcode !== '' && own.has(copy.barcode))
      problems.push(`Barcode ${groupedBarcode(copy.barcode)} stands twice in this record.`);
    own.add(copy.barcode);
    return problems.length ? { ...copy, problems: [...copy.problems, ...problems] } : copy;
  });
};

const withoutBarcode = ({ roll }: BarcodeContext): string[] =>
  roll ? [] : ['The record gives no barcode, and no label roll is chosen to take one from.'];

function problemsOf(
  { barcode, keepBarcode = false }: ProposedCopy,
  { rules, roll, rolls, takenBy, withdrawnFrom, seenIn }: BarcodeContext,
): string[] {
  const shown = groupedBarcode(barcode);
  const problems: string[] = [];
  const title = takenBy(barcode);
  if (title !== null) problems.push(`Barcode ${shown} is already on “${title}”.`);
  const of = rolls.find((r) => serialIn(r, barcode) !== null);
  const wrong = of ? null : barcodeProblem(barcode, rules);
  if (wrong && !keepBarcode) problems.push(`Barcode ${shown}: ${wrong}`);
  // A label that was given up is used again only on purpose.
  if (title === null && !keepBarcode)
    problems.push(...[withdrawnFrom(barcode), of ? spoiledIn(of, barcode) : null].filter((p) => p !== null));
  if (of?.supplier && of.name !== roll?.name)
    problems.push(`Barcode ${shown} belongs to the roll “${of.name}”, which is reserved for ${of.supplier}.`);
  else if (roll?.supplier && of?.name !== roll.name && !wrong)
    problems.push(
      `Barcode ${shown} is not of the roll “${roll.name}”, which is reserved for ${roll.supplier}.`,
    );
  const seen = seenIn(barcode);
  if (seen !== null) problems.push(`Barcode ${shown} is already in record ${seen} of this file.`);
  return problems;
}
