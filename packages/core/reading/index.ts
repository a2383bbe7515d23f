export { READING_PARTS, readingOf, type Read, type ReadingPart } from './reading';
