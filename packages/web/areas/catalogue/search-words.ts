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

/** "12 records", "More than 10,000 records, the best of which are listed,". */
export const foundCount = ({ total, isMore }: SearchAnswer): string =>
  isMore ? wording.moreThanTheBestOf(counted(total, 'record')) : counted(total, 'record');
