export { fold, foldedWords, isAscii, withoutMarks } from './fold';
export { editDistance, nearest } from './edit-distance';
export { decodedOnce } from './twice-encoded';
export { decodeWindows1252 } from './windows-1252';
