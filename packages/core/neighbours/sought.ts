import { isbn13From, readIsbn } from '../access';
import { checkCharacter } from '../barcodes';

/** What is looked for among the neighbours. */
export type Sought =
  | { readonly by: 'isbn'; readonly isbn13: string; readonly isbn10: string }
  | { readonly by: 'issn'; readonly number: string }
  | { readonly by: 'lccn'; readonly number: string }
  | { readonly by: 'control'; readonly number: string }
  | { readonly by: 'words'; readonly title: string; readonly name: string };

/** Why nothing can be looked for, as a sentence. */
export interface NotSought {
  readonly problem: string;
}

/** Whether reading gave something to look for. */
export const isSought = (read: Sought | NotSought): read is Sought => 'by' in read;

/** Said before a number that could be another one. */
const PREFIXED = /^\s*(isbn|issn|lccn|ean|number|no)\b[\s.:#-]*(.+)$/is;
const HYPHENS = /[\s\u2010-\u2015-]/g;

/**
 * Reads what is typed or scanned: an ISBN of either length, with hyphens or not, or the article number of a book with its price add-on;
 * an ISSN or its article number; `lccn …`; `number …` for a control number; else words of the title, and behind a slash the name, as
 * ISBD has them: `the eels of osmere / fenn`.
 */
export function readSought(typed: string): Sought | NotSought {
  const text = typed.trim();
  if (text === '') return { problem: 'Scan or type an ISBN, or a few words of the title.' };
  if (text.length > MOST) return { problem: 'This is too long: type a number or a few words.' };
  const [, said = '', rest = ''] = PREFIXED.exec(text) ?? [];
  switch (said.toLowerCase()) {
    case 'isbn':
    case 'ean':
      return readNumber(rest) ?? { problem: `“${rest}” is no ISBN: type its 10 or 13 digits.` };
    case 'issn':
      return issnOf(rest.replace(HYPHENS, ''));
    case 'lccn':
      return lccnOf(rest);
    case 'number':
    case 'no':
      return /\d/.test(rest) ? { by: 'control', number: rest.trim() } : wordsOf(text);
    default:
      return readNumber(text) ?? wordsOf(text);
  }
}
const MOST = 500;

/** What a text of mostly digits is; null for words. */
function readNumber(text: string): Sought | NotSought | null {
  const plain = text.replace(HYPHENS, '').toUpperCase();
  if (/^977\d{10}(\d{2}|\d{5})?$/.test(plain)) return issnOfArticle(plain.slice(0, 13));
  // Price or issue add-ons of 2 or 5 digits behind an article number (GS1 General Specifications).
  const number = /^97[89]\d{10}(\d{2}|\d{5})$/.test(plain) ? plain.slice(0, 13) : plain;
  if (/^\d{4}-\d{3}[\dXx]$/.test(text.trim())) return issnOf(plain);
  const digits = number.replace(/\D/g, '').length;
  if (digits < 8 || digits < number.length * 0.7 || /[A-Z]{3}/.test(number)) return null;
  const wrong = [...number].findIndex((c, i) => !/\d/.test(c) && !(c === 'X' && i === number.length - 1));
  if (wrong >= 0)
    return {
      problem: `Character ${wrong + 1} of “${text}” is “${number[wrong]}”; an ISBN has only digits, and X at the end of a short one.`,
    };
  if (number.length === 8) return issnOf(number);
  if (number.length !== 10 && number.length !== 13) return { problem: lengthProblem(number) };
  const read = readIsbn(number);
  if (read?.isbn13) return { by: 'isbn', isbn13: read.isbn13, isbn10: isbn10From(read.isbn13) };
  return { problem: `${read?.problem ?? 'This is no ISBN.'} Check the digits with the book.` };
}

function lengthProblem(number: string): string {
  const { length } = number;
  const nearest = length < 12 ? 10 : 13;
  const by = Math.abs(nearest - length);
  const many = `${by === 1 ? 'One digit is' : `${by} digits are`} ${length < nearest ? 'missing' : 'too many'}.`;
  return `“${number}” has ${length} digits; an ISBN has 10 or 13. ${by <= 2 ? `${many} ` : ''}For a control number type “number” before it.`;
}

/** The 10-digit form of an ISBN of 13 digits; '' for one that has none (979). */
export function isbn10From(isbn13: string): string {
  if (!isbn13.startsWith('978')) return '';
  const nine = isbn13.slice(3, 12);
  const check = checkCharacter('mod11', nine) ?? '';
  return isbn13From(nine + check) === isbn13 ? nine + check : '';
}

/** Check character of an ISSN (ISO 3297, annex A): weights 8 to 2, modulo 11. */
function issnOf(number: string): Sought | NotSought {
  const plain = number.toUpperCase();
  if (!/^\d{7}[\dX]$/.test(plain))
    return { problem: `“${number}” is no ISSN: it has eight characters, such as 0317-8471.` };
  const right = issnCheck(plain.slice(0, 7));
  return plain[7] === right
    ? { by: 'issn', number: `${plain.slice(0, 4)}-${plain.slice(4)}` }
    : {
        problem: `The check digit of ISSN ${plain.slice(0, 4)}-${plain.slice(4)} is wrong: it should be ${right}. Check the digits.`,
      };
}

function issnCheck(seven: string): string {
  const sum = [...seven].reduce((n, c, i) => n + Number(c) * (8 - i), 0);
  const check = (11 - (sum % 11)) % 11;
  return check === 10 ? 'X' : String(check);
}

/** The ISSN in an article number of a serial: its fourth to tenth digit (ISO 3297, annex on GTIN-13). */
function issnOfArticle(thirteen: string): Sought | NotSought {
  const right = checkCharacter('ean', thirteen.slice(0, 12));
  if (right !== thirteen[12])
    return {
      problem: `The check digit of ${thirteen} is wrong: it should be ${right ?? ''}. Scan it again.`,
    };
  const seven = thirteen.slice(3, 10);
  return issnOf(seven + issnCheck(seven));
}

/** A Library of Congress Control Number in its normal form (LCCN namespace, info:lccn). */
function lccnOf(text: string): Sought | NotSought {
  const [head = '', tail] = text.replace(/\s+/g, '').replace(/\/.*$/, '').split('-');
  const number = (tail === undefined ? head : head + tail.padStart(6, '0')).toLowerCase();
  return /^[a-z]{0,3}\d{8,10}$/.test(number)
    ? { by: 'lccn', number }
    : { problem: `“${text.trim()}” is no LCCN: up to three letters, then a year and six digits.` };
}

function wordsOf(text: string): Sought | NotSought {
  const at = text.search(/\s\/(\s|$)/);
  const title = (at < 0 ? text : text.slice(0, at)).trim();
  const name = at < 0 ? '' : text.slice(at + 2).trim();
  return /[\p{L}\p{N}]/u.test(title + name)
    ? { by: 'words', title, name }
    : { problem: 'There is no word to look for in this.' };
}

/** What is looked for, as a person says it. */
export function soughtText(sought: Sought): string {
  switch (sought.by) {
    case 'isbn':
      return `ISBN ${sought.isbn13}`;
    case 'issn':
      return `ISSN ${sought.number}`;
    case 'lccn':
      return `LCCN ${sought.number}`;
    case 'control':
      return `control number ${sought.number}`;
    case 'words':
      return [sought.title && `“${sought.title}”`, sought.name].filter(Boolean).join(' by ');
  }
}
