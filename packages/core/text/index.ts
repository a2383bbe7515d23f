export { asciiClasses, asciiWords, fold, foldedWords, isAscii, withoutMarks } from './fold';
export { memory, type Memory } from './memory';
export { startsWithLetter } from './letter';
export { editDistance, nearest } from './edit-distance';
export { decodedOnce } from './twice-encoded';
export { windows1252Byte, windows1252Character } from './windows-1252';
export { decodedText } from './decoded';
export { textNumber } from './text-number';
export { romanNumber } from './roman';
