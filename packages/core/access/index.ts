export type { IsbnReading } from './isbn';
export { isbn13From, readIsbn } from './isbn';
export type { RecordBrief, RecordKey, SearchText } from './access-points';
export {
  briefOf,
  RECORD_KEYS_VERSION,
  controlNumbers,
  isbns,
  issns,
  otherNumbers,
  recordKeys,
  searchText,
  titleKey,
  withoutEndPunctuation,
  yearOf,
} from './access-points';
