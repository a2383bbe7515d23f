import { encodeMarc8 } from '../charset/marc8-encode';
import { marc8Tables, type Marc8Tables } from '../charset/marc8-tables';
import { encodeUtf8, utf8Length } from '../charset/utf8';
import { isControl, type Field, type MarcRecord } from '../record';
import type { Charset } from './decode';
import { LONGEST_FIELD, LONGEST_RECORD } from './limits';
import { ENTRY_LENGTH, FIELD_END_CHAR, LEADER_LENGTH, RECORD_END_CHAR, SUBFIELD_CHAR } from './delimiters';

/**
 * Writes a record as ISO 2709, lengths and base address recomputed: in UTF-8 with leader/09 `a`, or in MARC-8 with a
 * blank there. A record or field longer than the structure can say is written with the greatest number; readers find
 * its end by the terminators. Delimiters inside a text become blanks.
 */
export function writeIso2709(record: MarcRecord, charset: Charset = 'utf8'): Uint8Array {
  return iso2709Writer(charset)(record);
}

/** The same for many records. */
export function iso2709Writer(charset: Charset): (record: MarcRecord) => Uint8Array {
  if (charset === 'utf8') return writeUtf8;
  const tables = marc8Tables();
  return (record) => writeMarc8(record, tables);
}

function writeUtf8(record: MarcRecord): Uint8Array {
  let data = '';
  let at = 0;
  let directory = '';
  for (const f of record.fields) {
    const text = fieldBody(f);
    const length = utf8Length(text);
    directory += entry(f.tag, length, at);
    at += length;
    data += text;
  }
  const head = leaderOf(record, at, 'a') + directory + FIELD_END_CHAR;
  return encodeUtf8(head + data + RECORD_END_CHAR);
}

function writeMarc8(record: MarcRecord, tables: Marc8Tables): Uint8Array {
  const bodies = record.fields.map((f) => encodeMarc8(fieldBody(f), tables));
  let at = 0;
  let directory = '';
  record.fields.forEach((f, i) => {
    directory += entry(f.tag, bodies[i]!.length, at);
    at += bodies[i]!.length;
  });
  const head = encodeUtf8(leaderOf(record, at, ' ') + directory + FIELD_END_CHAR);
  const out = new Uint8Array(head.length + at + 1);
  out.set(head);
  let to = head.length;
  for (const body of bodies) {
    out.set(body, to);
    to += body.length;
  }
  out[to] = RECORD_END_CHAR.charCodeAt(0);
  return out;
}

function fieldBody(f: Field): string {
  if (isControl(f)) return clean(f.value) + FIELD_END_CHAR;
  let text = indicatorOf(f.ind1) + indicatorOf(f.ind2);
  for (const s of f.subfields) text += SUBFIELD_CHAR + codeOf(s.code) + clean(s.value);
  return text + FIELD_END_CHAR;
}

/** A code is one byte between a delimiter and a text; what cannot stand there is `?`. */
const codeOf = (code: string) => (/^[!-~]$/.test(code) ? code : '?');
/** An indicator is one byte; what cannot stand there is a blank. */
const indicatorOf = (text: string) => (/^[ -~]/.test(text) ? text[0]! : ' ');

const DELIMITER = /[\u001d-\u001f]/g;
const clean = (text: string) => (text.search(DELIMITER) < 0 ? text : text.replace(DELIMITER, ' '));

/** Tags are three bytes of the directory, whatever they came from. */
const entry = (tag: string, length: number, at: number) =>
  (/^[!-~ ]{3}$/.test(tag)
    ? tag
    : tag
        .replace(/[^!-~]/g, '?')
        .padEnd(3, '?')
        .slice(0, 3)) +
  number(Math.min(length, LONGEST_FIELD), 4) +
  number(Math.min(at, LONGEST_RECORD), 5);

function leaderOf(record: MarcRecord, dataLength: number, coding: 'a' | ' '): string {
  const base = LEADER_LENGTH + ENTRY_LENGTH * record.fields.length + 1;
  const total = Math.min(base + dataLength + 1, LONGEST_RECORD);
  const l = record.leader.replace(/[^ -~]/g, ' ').padEnd(LEADER_LENGTH);
  return `${number(total, 5)}${l.slice(5, 9)}${coding}22${number(Math.min(base, LONGEST_RECORD), 5)}${l.slice(17, 20)}4500`;
}

const number = (n: number, width: number) => String(n).padStart(width, '0');
