/** How the last character of a code is reckoned from the others. */
export const CHECK_RULES = ['mod10', 'mod43', 'mod11', 'ean', 'none'] as const;
export type CheckRule = (typeof CHECK_RULES)[number];

/** Check digit over a string of digits, weights 2 and 1 from the right, digit sums, modulo 10 (ISO/IEC 7812-1, annex B). */
export function checkDigit(digits: string): number {
  let sum = 0;
  for (let i = 0; i < digits.length; i++) {
    const digit = digits.charCodeAt(digits.length - 1 - i) - 48;
    const weighted = i % 2 === 0 ? digit * 2 : digit;
    sum += weighted > 9 ? weighted - 9 : weighted;
  }
  return (10 - (sum % 10)) % 10;
}

/** Whether the last digit is the check digit of the rest. */
export const hasRightCheckDigit = (code: string): boolean =>
  /^\d{2,}$/.test(code) && checkDigit(code.slice(0, -1)) === Number(code.at(-1));

/** The characters of Code 39 (ISO/IEC 16388) in the order of their values. */
const CODE_39 = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ-. $/+%';

/** Check character of Code 39: the sum of the values modulo 43 (ISO/IEC 16388, annex A); null for characters that it does not have. */
function mod43(text: string): string | null {
  let sum = 0;
  for (const char of text) {
    const value = CODE_39.indexOf(char);
    if (value < 0) return null;
    sum += value;
  }
  return CODE_39[sum % 43] ?? null;
}

/** Check character modulo 11, weights 2 to 10 from the right and again, X for ten (ISO 2108 before 2007, ISO 3297; longer codes: common practice). */
function mod11(digits: string): string {
  let sum = 0;
  for (let i = 0; i < digits.length; i++)
    sum += (digits.charCodeAt(digits.length - 1 - i) - 48) * ((i % 9) + 2);
  const value = (11 - (sum % 11)) % 11;
  return value === 10 ? 'X' : String(value);
}

/** Check digit of EAN and GTIN: weights 3 and 1 from the right, modulo 10 (ISO/IEC 15420). */
function ean(digits: string): string {
  let sum = 0;
  for (let i = 0; i < digits.length; i++)
    sum += (digits.charCodeAt(digits.length - 1 - i) - 48) * (i % 2 === 0 ? 3 : 1);
  return String((10 - (sum % 10)) % 10);
}

/** The check character that stands behind `body`; null when the rule has none for it: other characters, or no rule. */
export function checkCharacter(rule: CheckRule, body: string): string | null {
  if (rule === 'none' || body === '') return null;
  if (rule === 'mod43') return mod43(body);
  if (!/^\d+$/.test(body)) return null;
  return rule === 'mod10' ? String(checkDigit(body)) : rule === 'mod11' ? mod11(body) : ean(body);
}
