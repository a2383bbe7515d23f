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
