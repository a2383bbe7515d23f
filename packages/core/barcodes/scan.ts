import { checkDigit } from './check-digit';

/** The form of the house’s barcodes. */
export interface BarcodeForm {
  readonly length: number;
  readonly kind: string;
  readonly library: string;
}

/** A scan made clean: blanks, controls, hyphens, and the start and stop letters A–D of a scanner taken away. */
export function cleanScan(raw: string): string {
  const plain = raw.replace(/[\s\u0000-\u001f\u007f-\u00a0-]/g, '');
  const inner = /^([A-Da-d])(\d+)([A-Da-d])?$/.exec(plain) ?? /^()(\d+)([A-Da-d])$/.exec(plain);
  return inner ? inner[2]! : plain;
}

/** What is wrong with a copy's barcode, as a sentence, or null. `form` is the house's. */
export function barcodeProblem(code: string, form: BarcodeForm): string | null {
  if (code === '') return 'No barcode was given.';
  if (!/^\d+$/.test(code)) return 'A barcode has digits only.';
  if (code.length !== form.length)
    return `A barcode here has ${form.length} digits; this one has ${code.length}.`;
  if (code[0] !== form.kind)
    return code[0] === '2'
      ? 'This is a reader’s card (it begins with 2), not a copy.'
      : `A copy’s barcode begins with ${form.kind}.`;
  const right = checkDigit(code.slice(0, -1));
  if (right !== Number(code.at(-1)))
    return `The check digit is wrong: ${code.at(-1)}, it should be ${right}.`;
  return null;
}

/** A 14-digit barcode in groups: kind, library, number, check digit; any other as it is. */
export function groupedBarcode(code: string): string {
  return /^\d{14}$/.test(code) ? `${code[0]} ${code.slice(1, 5)} ${code.slice(5, 13)} ${code[13]}` : code;
}

/** Makes a barcode of a form from its serial number. */
export function barcodeFor(form: BarcodeForm, serial: number): string {
  const body = form.kind + form.library;
  const digits = body + String(serial).padStart(form.length - body.length - 1, '0');
  return digits + checkDigit(digits);
}
