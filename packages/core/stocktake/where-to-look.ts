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

/** Other places where a missing copy may be. */
export interface OtherPlaces {
  /** Dewey classes that its own may have been misread as. */
  readonly classes: readonly string[];
  /** Call numbers under which other books of its author stand. */
  readonly ofAuthor: readonly string[];
  /** The day (ISO) on which it was seen last; '' for none. */
  readonly lastSeen: string;
}

/** Where a missing copy is looked for: between its neighbours that stood, at classes that its own may have been misread as, beside its author’s other books. */
export function whereToLook(
  after: string | null,
  before: string | null,
  { classes, ofAuthor, lastSeen }: OtherPlaces,
): string {
  const place =
    after !== null && before !== null
      ? `Expected between ${after} and ${before}.`
      : after !== null
        ? `Expected behind ${after}.`
        : before !== null
          ? `Expected before ${before}.`
          : 'Expected here and not scanned.';
  return [
    place,
    classes.length ? `Look at ${classes.join(' and ')} as well: digits are easily swapped.` : '',
    ofAuthor.length ? `Other books of the author stand at ${ofAuthor.join(', ')}.` : '',
    lastSeen ? `Last seen on ${lastSeen}.` : '',
  ]
    .filter(Boolean)
    .join(' ');
}
