import { checkCharacter, hasRightCheckDigit } from './check-character';

/** The schemes by which a code can be read on its own. */
export const CODE_SCHEMES = ['isbn10', 'isbn13', 'issn', 'ean13', 'library14', 'code39mod43'] as const;
export type CodeScheme = (typeof CODE_SCHEMES)[number];

/** What a code is by a scheme. `other` is the same book in the other form of an ISBN. */
export interface CodeReading {
  readonly valid: boolean;
  readonly normal: string | null;
  readonly reason: string | null;
  readonly other?: string | null;
}

const no = (reason: string): CodeReading => ({ valid: false, normal: null, reason });
const yes = (normal: string): CodeReading => ({ valid: true, normal, reason: null });
const wrongCheck = (is: string, should: string): CodeReading =>
  no(`The check character is wrong: ${is}, it should be ${should}.`);
const digitsWord = (n: number): string => (n === 1 ? '1 digit' : `${n} digits`);

/** Hyphens of any kind, and white space, which carry no meaning in an ISBN or ISSN. */
const HYPHENS = /[\s\u00ad\u2010-\u2015\u2212\u002d]/g;

/** A number without its label, what follows it, and hyphens. */
const bare = (text: string): string => (text.split(/[([{:]/)[0] ?? '').replace(HYPHENS, '');
const ISBN_LABEL = /^\s*ISBN\s*:?/i;
const ISBN_FORM = /^[\s\u00ad\u2010-\u2015\u2212-]*1[03]\s*(?::|(?=[\s\d]))/;
const ISSN_LABEL = /^\s*ISSN\s*:?/i;

/** What stands as an ISBN in a text; "ISBN-10" and "ISBN-13" are labels where what follows is a whole number by itself. */
function isbnIn(text: string, lengths: readonly number[]): string {
  if (!ISBN_LABEL.test(text)) return bare(text);
  const behind = text.replace(ISBN_LABEL, '');
  const [plain, formed] = [bare(behind), bare(behind.replace(ISBN_FORM, ''))];
  return lengths.includes(formed.length) || !lengths.includes(plain.length) ? formed : plain;
}

function isbn10(text: string): CodeReading {
  const number = isbnIn(text, [10]).toUpperCase();
  if (!/^[0-9X]*$/.test(number)) return no('An ISBN-10 has digits, and an X only as its last character.');
  if (number.length === 9 && /^\d+$/.test(number))
    return no(
      `It has 9 digits, as numbers had before the ISBN: with a nought in front it may be 0${number}.`,
    );
  if (number.length !== 10) return no(`An ISBN-10 has 10 characters; this one has ${number.length}.`);
  const body = number.slice(0, 9);
  const check = checkCharacter('mod11', body);
  if (check === null) return no('An X stands only in the last place.');
  if (check !== number[9]) return wrongCheck(number[9]!, check);
  return { ...yes(number), other: `978${body}${checkCharacter('ean', `978${body}`) ?? ''}` };
}

function isbn13(text: string): CodeReading {
  let number = isbnIn(text, [13, 18]);
  if (!/^[0-9]*$/.test(number)) return no('An ISBN-13 has digits only.');
  // A scanner may send the five digits of the price behind it.
  if (number.length === 18) number = number.slice(0, 13);
  if (number.length !== 13) return no(`An ISBN-13 has 13 digits; this one has ${number.length}.`);
  if (!/^97[89]/.test(number)) return no('An ISBN-13 begins with 978 or 979.');
  if (number.startsWith('9790')) return no('979-0 is printed music (ISMN), no book.');
  const check = checkCharacter('ean', number.slice(0, 12)) ?? '';
  if (check !== number[12]) return wrongCheck(number[12]!, check);
  const body = number.slice(3, 12);
  return {
    ...yes(number),
    other: number.startsWith('978') ? body + (checkCharacter('mod11', body) ?? '') : null,
  };
}

function issn(text: string): CodeReading {
  const number = bare(text.replace(ISSN_LABEL, '')).toUpperCase();
  if (!/^[0-9]*X?$/.test(number)) return no('An ISSN has digits, and an X only as its last character.');
  if (number.length !== 8) return no(`An ISSN has 8 characters; this one has ${number.length}.`);
  const check = checkCharacter('mod11', number.slice(0, 7));
  if (check === null) return no('An X stands only in the last place.');
  return check === number[7]
    ? yes(`${number.slice(0, 4)}-${number.slice(4)}`)
    : wrongCheck(number[7]!, check);
}

function ean13(text: string): CodeReading {
  let code = text.replace(/\s/g, '');
  if (!/^[0-9]*$/.test(code)) return no('An EAN-13 has digits only.');
  if (code.length === 12) code = `0${code}`;
  if (code.length !== 13) return no(`An EAN-13 has 13 digits; this one has ${code.length}.`);
  const check = checkCharacter('ean', code.slice(0, 12)) ?? '';
  return check === code[12] ? yes(code) : wrongCheck(code[12]!, check);
}

function library14(text: string): CodeReading {
  let code = text.replace(/\s/g, '').replace(/^\*+|\*+$/g, '');
  if (/^[A-D].*[A-D]$/i.test(code)) code = code.slice(1, -1);
  if (!/^[0-9]*$/.test(code)) return no('A library barcode has digits only.');
  if (code.length !== 14)
    return no(`A library barcode has 14 digits; this one has ${digitsWord(code.length)}.`);
  if (hasRightCheckDigit(code)) return yes(code);
  return wrongCheck(code[13]!, checkCharacter('mod10', code.slice(0, 13)) ?? '');
}

function code39mod43(text: string): CodeReading {
  const framed = /^\*(.*)\*$/s.exec(text);
  const code = framed ? framed[1]! : text;
  if (code.length < 2) return no('A code and its check character are at least 2 characters.');
  const check = checkCharacter('mod43', code.slice(0, -1));
  if (check === null || checkCharacter('mod43', code.slice(-1)) === null)
    return no('Code 39 has the digits, capitals, blank and - . $ / + % only.');
  return check === code.at(-1) ? yes(code) : wrongCheck(code.at(-1)!, check);
}

const READERS: Readonly<Record<CodeScheme, (text: string) => CodeReading>> = {
  isbn10: (text) => withOther(isbn10(text)),
  isbn13: (text) => withOther(isbn13(text)),
  issn,
  ean13,
  library14,
  code39mod43,
};
const withOther = (reading: CodeReading): CodeReading => ({ ...reading, other: reading.other ?? null });

/** What a code is by a scheme (the published standard of each; nothing about whether the number is in use). */
export const readCode = (scheme: CodeScheme, text: string): CodeReading => READERS[scheme](text);
