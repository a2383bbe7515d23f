import { encodeUtf8, utf8Length } from '../charset/utf8';
import { isControl, type MarcRecord } from '../record';
import { ENTRY_LENGTH, FIELD_END_CHAR, LEADER_LENGTH, RECORD_END_CHAR, SUBFIELD_CHAR } from './delimiters';

const LONGEST_FIELD = 9999;
const LONGEST_RECORD = 99999;

/**
 * Writes a record as ISO 2709 in UTF-8, leader/09 `a`, lengths and base address recomputed. A record or field longer
 * than the structure can say is written with the greatest number; readers find its end by the terminators.
 */
export function writeIso2709(record: MarcRecord): Uint8Array {
  let data = '';
  let at = 0;
  let directory = '';
  for (const f of record.fields) {
    let text: string;
    if (isControl(f)) {
      text = f.value;
    } else {
      text = f.ind1 + f.ind2;
      for (const s of f.subfields) text += SUBFIELD_CHAR + s.code + s.value;
    }
    text += FIELD_END_CHAR;
    const length = utf8Length(text);
    directory += f.tag + number(Math.min(length, LONGEST_FIELD), 4) + number(Math.min(at, LONGEST_RECORD), 5);
    at += length;
    data += text;
  }
  const base = LEADER_LENGTH + ENTRY_LENGTH * record.fields.length + 1;
  const total = Math.min(base + at + 1, LONGEST_RECORD);
  const l = record.leader.padEnd(LEADER_LENGTH).slice(0, LEADER_LENGTH);
  const leader =
    number(total, 5) +
    l.slice(5, 9) +
    'a22' +
    number(Math.min(base, LONGEST_RECORD), 5) +
    l.slice(17, 20) +
    '4500';
  return encodeUtf8(leader + directory + FIELD_END_CHAR + data + RECORD_END_CHAR);
}

const number = (n: number, width: number) => String(n).padStart(width, '0');
