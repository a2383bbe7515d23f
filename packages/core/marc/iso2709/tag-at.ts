import { digits } from './delimiters';

/**
 * The thousand tags of digits: the same text for the same tag is compared and looked up faster than a new one. Short texts
 * that come out of JSON are, in the engines we know, the very ones that stand in the code as constants.
 */
const TAGS = JSON.parse(
  JSON.stringify(Array.from({ length: 1000 }, (_, n) => String(n).padStart(3, '0'))),
) as string[];

/** The tag at the beginning of a directory entry. */
export const tagAt = (bytes: Uint8Array, at: number): string =>
  TAGS[digits(bytes, at, 3)] ?? String.fromCharCode(bytes[at]!, bytes[at + 1]!, bytes[at + 2]!);
