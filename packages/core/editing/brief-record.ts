import { initialArticle } from '../checks';
import { field, type DataField, type MarcRecord } from '../marc';
import { emptyFixedField, withPosition } from './fixed-field';

/** What is typed to enter a book before it has its full record. */
export interface BriefParts {
  readonly title: string;
  /** As written in a heading, surname first; '' where nobody is named. */
  readonly name: string;
  readonly isbn: string;
  /** A Dewey class; '' for none. */
  readonly class: string;
  readonly year: string;
  readonly language: string;
}

/** Encoding level of a brief record (MARC 21, leader/17: 3, abbreviated level). */
const ABBREVIATED = '3';

/** Whether a record waits for its full one. */
export const isBriefRecord = (record: MarcRecord): boolean => record.leader[17] === ABBREVIATED;

/** A brief record of the little that is known of a book; `day` is today, ISO. */
export function briefRecord(parts: BriefParts, day: string): MarcRecord {
  const leader = `00000nam a22000003i 4500`;
  const year = /^\d{4}$/.test(parts.year) ? parts.year : '';
  let fixed = emptyFixedField('008', leader);
  const put = (from: number, text: string) => {
    fixed = withPosition(fixed, { from, to: from + text.length }, text);
  };
  put(0, day.replaceAll('-', '').slice(2));
  put(6, year ? `s${year}    xx ` : 'nuuuuuuuuxx ');
  put(35, parts.language.padEnd(3).slice(0, 3));
  put(39, 'd');
  const skip = initialArticle(parts.title, parts.language).length;
  const fields: DataField[] = [
    ...(parts.isbn ? [field('020', '  ', 'a', parts.isbn)] : []),
    ...(parts.class ? [field('082', '04', 'a', parts.class)] : []),
    ...(parts.name ? [field('100', parts.name.includes(',') ? '1 ' : '0 ', 'a', withStop(parts.name))] : []),
    field('245', `${parts.name ? 1 : 0}${skip}`, 'a', withStop(parts.title)),
    ...(year ? [field('264', ' 1', 'c', `${year}.`)] : []),
  ];
  return { leader, fields: [{ tag: '008', value: fixed }, ...fields] };
}

/** ISBD: a field that ends with no mark ends with a full stop. */
const withStop = (text: string): string => (/[.?!)\]-]$/.test(text) ? text : `${text}.`);
