/**
 * Characters of Windows-1252 at 0x80–0x9F (Unicode mapping table CP1252); the five unassigned bytes stand for themselves.
 * Kept here because not every JavaScript engine decodes this label as the Encoding Standard says.
 */
const HIGH =
  '\u20ac\u0081\u201a\u0192\u201e\u2026\u2020\u2021\u02c6\u2030\u0160\u2039\u0152\u008d\u017d\u008f\u0090\u2018\u2019\u201c\u201d\u2022\u2013\u2014\u02dc\u2122\u0161\u203a\u0153\u009d\u017e\u0178';

/** The character of one byte. */
export const windows1252Character = (byte: number): string =>
  byte >= 0x80 && byte <= 0x9f ? HIGH[byte - 0x80]! : String.fromCharCode(byte);

/** The byte of a character (by its code unit), or null when Windows-1252 has none. */
export function windows1252Byte(code: number): number | null {
  if (code <= 0x7f || (code >= 0xa0 && code <= 0xff)) return code;
  const at = HIGH.indexOf(String.fromCharCode(code));
  return at >= 0 ? at + 0x80 : code <= 0x9f ? code : null;
}
