export { iso2709Reader, readableRecords, readIso2709 } from './read';
export type { Iso2709Options, Iso2709Reader } from './read';
export { iso2709Writer, writeIso2709 } from './write';
export type { Charset } from './decode';
export type { CleanLayout } from './clean-layout';
export { JsonFromBytes, jsonRoom } from './to-json';
export { hasLink, isShared } from './read-field';
export { beyondIso2709, LONGEST_FIELD, LONGEST_RECORD } from './limits';
export { leaderFits } from './delimiters';
