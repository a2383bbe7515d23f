import { controlValue, dataFields, first, values, type MarcRecord } from '../marc';
import { fold } from '../text';
import { found, keysAt, type AccessPoint } from './access-point';
import { readIsbn } from './isbn';

/** ISBNs in 13 digits (ISO 2108), wrong and cancelled ones left out. */
export const ISBN: AccessPoint<MarcRecord, 'isbn'> = {
  name: 'isbn',
  title: 'ISBN',
  type: 'key',
  version: 1,
  extract: (record) => found(dataFields(record, '020').flatMap((f) => values(f, 'a'))),
  normalise: (text) => readIsbn(text)?.isbn13 ?? '',
};

/** ISSNs (ISO 3297): eight characters. */
export const ISSN: AccessPoint<MarcRecord, 'issn'> = {
  name: 'issn',
  title: 'ISSN',
  type: 'key',
  version: 1,
  extract: (record) => found(dataFields(record, '022').flatMap((f) => values(f, 'a'))),
  normalise(text) {
    const number = text.replace(/[^\dXx]/g, '').toUpperCase();
    return number.length === 8 ? number : '';
  },
};

/**
 * Control numbers as `organisation:number`, from 001 with 003 and from 035 $a; the organisation is empty when it is
 * not given. Leading zeros and letters around the number count as written, case does not.
 */
export const CONTROL_NUMBER: AccessPoint<MarcRecord, 'control'> = {
  name: 'control',
  title: 'Control number',
  type: 'key',
  version: 1,
  extract(record) {
    const own = controlValue(record, '001')?.trim();
    const others = dataFields(record, '035').flatMap((f) => values(f, 'a'));
    return found([
      ...(own ? [`(${(controlValue(record, '003') ?? '').replaceAll(')', ' ')})${own}`] : []),
      ...others.map((text) => (/^\s*\([^)]*\)\s*./.test(text) ? text : text.trim() && `()${text}`)),
    ]);
  },
  normalise(text) {
    const parts = /^\s*(?:\(([^)]*)\))?\s*(.+)$/s.exec(text);
    return parts ? controlKey(parts[1] ?? '', parts[2]!) : '';
  },
};

const controlKey = (organisation: string, number: string) =>
  `${organisation.trim().toLowerCase()}:${number.trim().toLowerCase().replace(/\s+/g, '')}`;

/** LCCNs (010 $a) without blanks. */
export const LCCN: AccessPoint<MarcRecord, 'lccn'> = {
  name: 'lccn',
  title: 'LCCN',
  type: 'key',
  version: 1,
  extract: (record) => found(dataFields(record, '010').flatMap((f) => values(f, 'a'))),
  normalise: (text) => text.replace(/\s+/g, '').toLowerCase(),
};

/**
 * Other standard and publishers' numbers as `kind:number` (024 by its first indicator or $2, 028 with its source $b); ISBN
 * written as an article number (024 3) is left to the ISBN.
 */
export const OTHER_NUMBER: AccessPoint<MarcRecord, 'number'> = {
  name: 'number',
  title: 'Standard or publisher’s number',
  type: 'key',
  version: 1,
  extract: (record) =>
    found(
      dataFields(record, /^02[48]$/).flatMap((f) => {
        const kind =
          f.tag === '028' ? fold(first(f, 'b') ?? '') : f.ind1 === '7' ? (first(f, '2') ?? '') : f.ind1;
        const isArticle = f.tag === '024' && f.ind1 === '3';
        return values(f, 'a')
          .filter((text) => !(isArticle && /^97[89]\d{10}$/.test(numberOf(text))))
          .map((text) => `${f.tag} ${kind}:${text}`);
      }),
    ),
  normalise(text) {
    const at = text.indexOf(':');
    const number = numberOf(text.slice(at + 1));
    return number.length < 4 ? '' : `${text.slice(0, at + 1)}${number}`;
  },
};

const numberOf = (text: string) => text.replace(/[\s-]+/g, '').toLowerCase();

/** ISBNs of a record in 13 digits, wrong and cancelled ones left out. */
export const isbns = (record: MarcRecord): string[] => keysAt(ISBN, record).map((k) => k.key);
/** ISSNs of a record, eight characters, each once. */
export const issns = (record: MarcRecord): string[] => keysAt(ISSN, record).map((k) => k.key);
/** Control numbers of a record as `organisation:number`. */
export const controlNumbers = (record: MarcRecord): string[] =>
  keysAt(CONTROL_NUMBER, record).map((k) => k.key);
/** LCCNs of a record. */
export const lccns = (record: MarcRecord): string[] => keysAt(LCCN, record).map((k) => k.key);
/** Other numbers of a record as `kind:number`. */
export const otherNumbers = (record: MarcRecord): string[] => keysAt(OTHER_NUMBER, record).map((k) => k.key);
