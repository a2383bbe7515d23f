import {
  controlValue,
  dataFields,
  first,
  firstValue,
  isData,
  runningText,
  values,
  type MarcRecord,
} from '../marc';
import { materialOf } from '../format';
import { fold } from '../text';
import { readIsbn } from './isbn';

/**
 * Version of the rules by which what a record is listed, matched and found by is computed: the columns of a record, its keys and its
 * words. It rises when one of them changes; a store then computes them anew after it is opened, while people work.
 */
export const RECORD_KEYS_VERSION = 1;

/** What a list shows of a record. */
export interface RecordBrief {
  readonly title: string;
  readonly author: string;
  readonly year: string;
  readonly isbn: string;
  readonly publisher: string;
  readonly edition: string;
  readonly language: string;
  readonly material: string;
}

/** Text without the ISBD punctuation that ends an area. */
export const withoutEndPunctuation = (text: string): string =>
  text
    .replace(/\s*[/:;,=]\s*$/, '')
    .replace(/\s*(?<![A-Z.])\.$/, '')
    .trim();

/** Title, author, year and so on for lists and messages. */
export function briefOf(record: MarcRecord): RecordBrief {
  const title = dataFields(record, '245')[0];
  const main = record.fields.find((f) => /^1(00|10|11|30)$/.test(f.tag));
  const author =
    main && isData(main) && main.tag !== '130' ? runningText(main, 'abcdq') : firstValue(record, '700', 'a');
  return {
    title: title ? withoutEndPunctuation(runningText(title, 'abnp')) || '[no title]' : '[no title]',
    author: withoutEndPunctuation(author ?? first(title, 'c') ?? ''),
    year: yearOf(record),
    isbn: isbns(record)[0] ?? '',
    publisher: withoutEndPunctuation(firstValue(record, '264', 'b') ?? firstValue(record, '260', 'b') ?? ''),
    edition: withoutEndPunctuation(firstValue(record, '250', 'a') ?? ''),
    language: languageOf(record),
    material: materialOf(record.leader),
  };
}

/** Year of publication: the date of 008, else the first in 264 or 260 $c; empty for none. */
export function yearOf(record: MarcRecord): string {
  const fixed = controlValue(record, '008')?.slice(7, 11) ?? '';
  if (/^\d{4}$/.test(fixed)) return fixed;
  const written = firstValue(record, '264', 'c') ?? firstValue(record, '260', 'c') ?? '';
  return /\d{4}/.exec(written)?.[0] ?? '';
}

const languageOf = (record: MarcRecord): string => {
  const code = controlValue(record, '008')?.slice(35, 38) ?? '';
  return /^[a-z]{3}$/.test(code) ? code : (firstValue(record, '041', 'a') ?? '').slice(0, 3);
};

/** ISBNs of a record in 13 digits, wrong and cancelled ones left out. */
export function isbns(record: MarcRecord): string[] {
  const found = new Set<string>();
  for (const f of dataFields(record, '020'))
    for (const text of values(f, 'a')) {
      const isbn = readIsbn(text)?.isbn13;
      if (isbn) found.add(isbn);
    }
  return [...found];
}

/** ISSNs of a record, eight characters. */
export const issns = (record: MarcRecord): string[] =>
  dataFields(record, '022')
    .flatMap((f) => values(f, 'a'))
    .map((v) => v.replace(/[^\dXx]/g, '').toUpperCase())
    .filter((v) => v.length === 8);

/**
 * Control numbers as `organisation:number`, from 001 with 003 and from 035 $a; the organisation is empty when it is
 * not given. Leading zeros and letters around the number count as written, case does not.
 */
export function controlNumbers(record: MarcRecord): string[] {
  const found = new Set<string>();
  const own = controlValue(record, '001')?.trim();
  if (own) found.add(controlKey(controlValue(record, '003') ?? '', own));
  for (const f of dataFields(record, '035'))
    for (const text of values(f, 'a')) {
      const parts = /^\s*\(([^)]*)\)\s*(.+)$/.exec(text);
      if (parts) found.add(controlKey(parts[1]!, parts[2]!));
      else if (text.trim()) found.add(controlKey('', text));
    }
  return [...found];
}

const controlKey = (organisation: string, number: string) =>
  `${organisation.trim().toLowerCase()}:${number.trim().toLowerCase().replace(/\s+/g, '')}`;

/**
 * Other standard and publishers' numbers as `kind:number` (024 by its first indicator or $2, 028 with its source $b); ISBN
 * written as an article number (024 3) is left to the ISBN.
 */
export function otherNumbers(record: MarcRecord): string[] {
  const found = new Set<string>();
  for (const f of dataFields(record, /^02[48]$/))
    for (const text of values(f, 'a')) {
      const number = text.replace(/[\s-]+/g, '').toLowerCase();
      if (number.length < 4 || (f.tag === '024' && f.ind1 === '3' && /^97[89]\d{10}$/.test(number))) continue;
      const kind =
        f.tag === '028' ? fold(first(f, 'b') ?? '') : f.ind1 === '7' ? (first(f, '2') ?? '') : f.ind1;
      found.add(`${f.tag} ${kind}:${number}`);
    }
  return [...found];
}

/** A key that the store keeps with a record and finds it by. */
export interface RecordKey {
  readonly kind: 'isbn' | 'issn' | 'control' | 'lccn' | 'number' | 'title';
  readonly key: string;
}

/** All keys by which a record is matched and found exactly. */
export function recordKeys(record: MarcRecord): RecordKey[] {
  const title = dataFields(record, '245')[0];
  const keys: RecordKey[] = [
    ...isbns(record).map((key) => ({ kind: 'isbn' as const, key })),
    ...issns(record).map((key) => ({ kind: 'issn' as const, key })),
    ...controlNumbers(record).map((key) => ({ kind: 'control' as const, key })),
    ...dataFields(record, '010')
      .flatMap((f) => values(f, 'a'))
      .map((v) => ({ kind: 'lccn' as const, key: v.replace(/\s+/g, '').toLowerCase() })),
    ...otherNumbers(record).map((key) => ({ kind: 'number' as const, key })),
  ];
  if (title) keys.push({ kind: 'title', key: titleKey(runningText(title, 'ab')) });
  return keys.filter((k) => k.key !== '');
}

/** The key of a title by which look-alike records meet: folded, 120 characters. */
export const titleKey = (title: string): string => fold(title).slice(0, 120);

/** The words of a record by where they stand, for the search index. */
export interface SearchText {
  readonly title: string;
  readonly name: string;
  readonly subject: string;
  readonly rest: string;
}

/** The words of a record by the columns of the full-text index. */
export function searchText(record: MarcRecord): SearchText {
  const parts = {
    title: [] as string[],
    name: [] as string[],
    subject: [] as string[],
    rest: [] as string[],
  };
  for (const f of record.fields) {
    if (!isData(f)) continue;
    const tag = f.tag === '880' ? (first(f, '6') ?? '').slice(0, 3) : f.tag;
    const text = runningText(f);
    if (/^(245|246|240|130|730|740|440|490|830)$/.test(tag)) parts.title.push(text);
    if (tag === '245') parts.name.push(first(f, 'c') ?? '');
    else if (/^[178](00|10|11)$/.test(tag)) parts.name.push(text);
    else if (/^6/.test(tag)) parts.subject.push(text);
    else if (/^(020|022|024|082|050|250|26[04]|300|5..)$/.test(tag)) parts.rest.push(text);
  }
  const joined = (p: string[]) => fold(p.join(' '));
  return {
    title: joined(parts.title),
    name: joined(parts.name),
    subject: joined(parts.subject),
    rest: joined(parts.rest),
  };
}
