import { utf8Length } from '../charset/utf8';
import { isControl, type Field, type MarcRecord } from '../record';
import { ENTRY_LENGTH, LEADER_LENGTH } from './delimiters';

/** Bytes that a field may have (ISO 2709: four digits for its length). */
export const LONGEST_FIELD = 9999;
/** Bytes that a record may have (ISO 2709: five digits for its length). */
export const LONGEST_RECORD = 99_999;

/** Bytes of a field in UTF-8, with its indicators, delimiters and end; `most` of one without counting where that is enough. */
function lengthOf(field: Field, most: number): number {
  if (isControl(field)) return lengthIn(field.value, most) + 1;
  let length = 3;
  for (const { value } of field.subfields) length += 2 + lengthIn(value, most);
  return length;
}
/** A character has at most three bytes for each of its UTF-16 units. */
const lengthIn = (text: string, most: number): number =>
  text.length * 3 < most ? text.length * 3 : utf8Length(text);

/** What of a record ISO 2709 cannot say: its length in bytes when that is too great, and the places of fields that are too long. */
export function beyondIso2709({ fields }: MarcRecord): {
  readonly length: number | null;
  readonly fields: readonly number[];
} {
  // Most records are far below: a bound above is enough for them.
  let bound = 0;
  let isLong = false;
  for (const field of fields) {
    const length = lengthOf(field, LONGEST_FIELD);
    bound += length + ENTRY_LENGTH;
    isLong ||= length > LONGEST_FIELD;
  }
  if (!isLong && bound < LONGEST_RECORD - LEADER_LENGTH - 2) return { length: null, fields: [] };
  const exact = fields.map((f) => lengthOf(f, 0));
  const length = exact.reduce((n, l) => n + l + ENTRY_LENGTH, LEADER_LENGTH + 2);
  return {
    length: length > LONGEST_RECORD ? length : null,
    fields: exact.flatMap((l, i) => (l > LONGEST_FIELD ? [i] : [])),
  };
}
