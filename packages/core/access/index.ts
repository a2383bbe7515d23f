export type { IsbnReading } from './isbn';
export { isbn13From, readIsbn } from './isbn';
export type { AccessKey, AccessPoint, AccessType, FoundValue } from './access-point';
export { columnAt, columnsAt, found, plainPoint, keysAt, wordsAt } from './access-point';
export type { RecordBrief } from './brief';
export {
  briefOf,
  FILING_NAME,
  FILING_TITLE,
  LANGUAGE,
  MATERIAL,
  withoutEndPunctuation,
  YEAR,
  yearOf,
} from './brief';
export {
  CONTROL_NUMBER,
  controlNumbers,
  ISBN,
  isbns,
  ISSN,
  issns,
  LCCN,
  lccns,
  OTHER_NUMBER,
  otherNumbers,
} from './numbers';
export { PLACE, PUBLISHER, SERIES } from './publication';
export { RECORD_WORDS } from './words';
export {
  LOCAL_WORDS,
  NAME_WORDS,
  NOTE_WORDS,
  OTHER_WORDS,
  PLACE_WORDS,
  PUBLISHER_WORDS,
  SERIES_WORDS,
  SUBJECT_WORDS,
  TITLE_WORDS,
} from './words';
