export { iso2709Reader, readableRecords, readIso2709 } from './read';
export type { Iso2709Options, Iso2709Reader } from './read';
export { writeIso2709 } from './write';
export type { Charset } from './decode';
export { isoToJson, jsonRoom } from './to-json';
export { hasLink, isMarked, isShared, markShared } from './read-field';
export { leaderFits } from './delimiters';
