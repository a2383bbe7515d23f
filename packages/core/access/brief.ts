import { controlValue, dataFields, first, firstValue, isData, runningText, type MarcRecord } from '../marc';
import { materialOf } from '../format';
import { fold } from '../text';
import { columnAt, found, type AccessPoint } from './access-point';
import { isbns } from './numbers';

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

/** Year of publication: the date of 008, else the first in 264 or 260 $c. */
export const YEAR: AccessPoint<MarcRecord, 'year'> = {
  name: 'year',
  title: 'Year',
  type: 'date',
  version: 1,
  extract(record) {
    const fixed = controlValue(record, '008')?.slice(7, 11) ?? '';
    if (/^\d{4}$/.test(fixed)) return found([fixed]);
    return found([firstValue(record, '264', 'c') ?? firstValue(record, '260', 'c') ?? '']);
  },
  normalise: (text) => /\d{4}/.exec(text)?.[0] ?? '',
};

/** MARC code of the language: of 008, else of 041. */
export const LANGUAGE: AccessPoint<MarcRecord, 'language'> = {
  name: 'language',
  title: 'Language',
  type: 'code',
  version: 1,
  extract(record) {
    const code = controlValue(record, '008')?.slice(35, 38) ?? '';
    return found([/^[a-z]{3}$/.test(code) ? code : (firstValue(record, '041', 'a') ?? '')]);
  },
  normalise: (text) => text.slice(0, 3),
  facet: true,
};

/** The 008 configuration that leader/06 and /07 choose, as it is called. */
export const MATERIAL: AccessPoint<MarcRecord, 'material'> = {
  name: 'material',
  title: 'Type of record',
  type: 'code',
  version: 1,
  extract: (record) => found([materialOf(record.leader)]),
  normalise: (text) => text,
  facet: true,
};

/** The title of 245 as it is filed: folded, without the nonfiling characters that the second indicator counts. */
export const FILING_TITLE: AccessPoint<MarcRecord, 'sort'> = {
  name: 'sort',
  title: 'Title as filed',
  type: 'phrase',
  version: 1,
  extract(record) {
    const field = record.fields.find((f) => f.tag === '245');
    const nonfiling = field && isData(field) ? Number(field.ind2) || 0 : 0;
    return found([titleOf(record).slice(nonfiling)]);
  },
  normalise: fold,
  sorts: true,
};

/** Behind every name: what has none is filed last. */
const NAMELESS = '\u{10ffff}';

/** The name of 1XX, else the first of 700, as it is filed: folded. */
export const FILING_NAME: AccessPoint<MarcRecord, 'filing_name'> = {
  name: 'filing_name',
  title: 'Name as filed',
  type: 'phrase',
  version: 1,
  extract: (record) => found([authorOf(record)]),
  normalise: (text) => fold(text) || NAMELESS,
  sorts: true,
};

/** Title, author, year and so on for lists and messages. */
export function briefOf(record: MarcRecord): RecordBrief {
  return {
    title: titleOf(record),
    author: authorOf(record) || withoutEndPunctuation(first(dataFields(record, '245')[0], 'c') ?? ''),
    year: yearOf(record),
    isbn: isbns(record)[0] ?? '',
    publisher: withoutEndPunctuation(firstValue(record, '264', 'b') ?? firstValue(record, '260', 'b') ?? ''),
    edition: withoutEndPunctuation(firstValue(record, '250', 'a') ?? ''),
    language: columnAt(LANGUAGE, record),
    material: columnAt(MATERIAL, record),
  };
}

function authorOf(record: MarcRecord): string {
  const main = record.fields.find((f) => /^1(00|10|11|30)$/.test(f.tag));
  const author =
    main && isData(main) && main.tag !== '130' ? runningText(main, 'abcdq') : firstValue(record, '700', 'a');
  return withoutEndPunctuation(author ?? '');
}

function titleOf(record: MarcRecord): string {
  const title = dataFields(record, '245')[0];
  return title ? withoutEndPunctuation(runningText(title, 'abnp')) || '[no title]' : '[no title]';
}

/** Year of publication: the date of 008, else the first in 264 or 260 $c; empty for none. */
export const yearOf = (record: MarcRecord): string => columnAt(YEAR, record);
