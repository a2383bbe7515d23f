import { isCopyCode, type BarcodeRule } from './barcode-rule';
import { checkDigit } from './check-character';

/** A scan without what a scanner or a hand may have put there: blanks, controls, hyphens, stars and start and stop letters A–D. */
export function cleanScan(raw: string): string {
  const plain = raw.replace(/[\s\u0000-\u001f\u007f-\u00a0-]/g, '').replace(/^\*(.*)\*$/, '$1');
  const inner = /^([A-Da-d])(\d+)([A-Da-d])?$/.exec(plain) ?? /^()(\d+)([A-Da-d])$/.exec(plain);
  return inner ? inner[2]! : plain;
}

/** A scan as it came, only without blanks and controls at its ends. */

const asScanned = (raw: string): string => raw.replace(/^[\s\u0000-\u001f]+|[\s\u0000-\u001f]+$/g, '');

/** The codes that a scan may stand for, that as it came first; none for an empty one. */
export function scanForms(raw: string): string[] {
  const own = asScanned(raw);
  return [...new Set([own, cleanScan(raw), cleanScan(raw).toUpperCase()])].filter((code) => code !== '');
}

/**
 * The barcode that a scan gives, before anybody has looked whether a copy has it: as it came where that is one by the library’s rules,
 * else as it is when made clean. Without rules it is what came.
 */
export function scannedBarcode(raw: string, rules: readonly BarcodeRule[]): string {
  const forms = scanForms(raw);
  // Digits in groups are one number.
  if (/^[\d\s-]{8,}$/.test(raw) && !rules.length) return cleanScan(raw);
  return forms.find((code) => isCopyCode(code, rules)) ?? cleanScan(raw);
}

/** A 14-digit barcode in groups: kind, library, number, check digit; any other as it is. */
export function groupedBarcode(code: string): string {
  return /^\d{14}$/.test(code) ? `${code[0]} ${code.slice(1, 5)} ${code.slice(5, 13)} ${code[13]}` : code;
}

/** The barcode with a serial number by a rule of digits alone with a check digit modulo 10. */
export function barcodeFor({ prefix, form }: BarcodeRule, serial: number): string {
  const digits = prefix + String(serial).padStart(form.length - 1, '0');
  return digits + checkDigit(digits);
}
