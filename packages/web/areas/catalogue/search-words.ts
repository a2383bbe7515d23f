import type { SearchAnswer } from '@osier/contract';
import { counted } from '@osier/core/changes';
import { catalogueWords as wording } from './words';

/** What an input was taken for, as it is said. */
export const TOOK_FOR: Readonly<Record<string, string>> = {
  isbn: wording.anIsbn,
  barcode: wording.aBarcode,
  record: wording.aRecordNumber,
  heading: wording.aHeadingNumber,
  'call number': wording.aCallNumber,
  'field address': wording.aFieldAddress,
  query: wording.aQuery,
};

/** "12 records", "More than 10,000 records, the best of which are listed,", "12 records so far, 40 of 100 parts looked through,". */
export const foundCount = ({ total, isMore, running }: SearchAnswer): string =>
  running !== null
    ? wording.soFar(counted(total, 'record'), Math.floor(running * 100))
    : isMore
      ? wording.moreThanTheBestOf(counted(total, 'record'))
      : counted(total, 'record');
