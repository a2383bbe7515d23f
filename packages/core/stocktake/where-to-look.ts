import { readDewey } from '../callnumbers';

/** The classes that a book may have been shelved under by mistake: two neighbouring digits of its Dewey class read the other way round. */
export function swappedClasses(callNumber: string): string[] {
  const dewey = readDewey(callNumber);
  if (!dewey || dewey.prefix !== '') return [];
  const digits = dewey.whole + dewey.decimals;
  const found = new Set<string>();
  for (let i = 0; i + 1 < digits.length; i++) {
    if (digits[i] === digits[i + 1]) continue;
    const other = digits.slice(0, i) + digits[i + 1]! + digits[i]! + digits.slice(i + 2);
    found.add(other.length > 3 ? `${other.slice(0, 3)}.${other.slice(3)}`.replace(/\.?0+$/, '') : other);
  }
  return [...found];
}

/** Where a missing copy is looked for: between its neighbours that stood, and at classes that its own may have been misread as. */
export function whereToLook(after: string | null, before: string | null, classes: readonly string[]): string {
  const place =
    after !== null && before !== null
      ? `Expected between ${after} and ${before}.`
      : after !== null
        ? `Expected behind ${after}.`
        : before !== null
          ? `Expected before ${before}.`
          : 'Expected here and not scanned.';
  return classes.length
    ? `${place} Look at ${classes.join(' and ')} as well: digits are easily swapped.`
    : place;
}
