import { checkCharacter } from '../barcodes';

/** Check character of the first nine digits of an ISBN-10 (ISO 2108:2005, annex C). */
const check10 = (nine: string): string => checkCharacter('mod11', nine) ?? '';
/** Check digit of the first twelve digits of an ISBN-13 (ISO 2108:2017, annex B). */
const check13 = (twelve: string): string => checkCharacter('ean', twelve) ?? '';

/** What stands in a text as an ISBN. */
export interface IsbnReading {
  /** Digits (and X) as given, without hyphens. */
  readonly digits: string;
  /** In 13 digits, when the check digit is right. */
  readonly isbn13: string | null;
  /** What follows the number: qualifier, price. */
  readonly rest: string;
  /** Why it is not an ISBN, as a sentence. */
  readonly problem: string | null;
}

/** Reads an ISBN from the text of 020 $a, or from a scan: hyphens and blanks between digits do not matter. */
export function readIsbn(text: string): IsbnReading | null {
  const found = /^\s*(?:ISBN[:\s-]*)?((?:\d[ \-\u2010-\u2015]?){8,12}[\dXx])(?!\d)(.*)$/s.exec(text);
  if (!found) return null;
  const digits = found[1]!.replace(/[^\dXx]/g, '').toUpperCase();
  const rest = found[2]!.trim();
  const result = (isbn13: string | null, problem: string | null) => ({ digits, isbn13, rest, problem });
  if (/^\d{9}[\dX]$/.test(digits)) {
    const right = check10(digits.slice(0, 9));
    if (right !== digits[9])
      return result(null, `The check digit of ISBN ${digits} is wrong: it should be ${right}.`);
    return result(isbn13From(digits), null);
  }
  if (/^97[89]\d{10}$/.test(digits)) {
    const right = check13(digits.slice(0, 12));
    if (right !== digits[12])
      return result(null, `The check digit of ISBN ${digits} is wrong: it should be ${right}.`);
    return result(digits, null);
  }
  if (digits.length === 13)
    return result(null, `${digits} does not begin with 978 or 979, as an ISBN of 13 digits does.`);
  return result(null, `ISBN ${digits} has ${digits.length} digits; an ISBN has 10 or 13.`);
}

/** The 13-digit form of a 10-digit ISBN. */
export function isbn13From(isbn10: string): string {
  const twelve = `978${isbn10.slice(0, 9)}`;
  return twelve + check13(twelve);
}
