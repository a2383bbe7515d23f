import { composed, decodeUtf8 } from '../charset/utf8';
import type { Field } from '../record';
import type { Charset } from './decode';
import { FIELD_END_CHAR } from './delimiters';
import { readField, type Note } from './field';
import { FieldPool, type ByteRun } from './shared-fields';

/** Fields that follow each other: where the first begins, how many they are, their tags, and the terminator of each. */
export interface FieldRun {
  readonly bytes: Uint8Array;
  readonly from: number;
  readonly to: number;
  readonly count: number;
  readonly tags: readonly string[];
  readonly ends: ArrayLike<number>;
}

/** The fields of a record, and whether all of their text is ASCII. */
export interface CutFields {
  readonly fields: Field[];
  readonly ascii: boolean;
}

/** Takes the fields of one record after another out of their bytes; null for fields that need a closer look. */
export type FieldCutter = (
  run: FieldRun,
  charset: Charset,
  note: (code: Parameters<Note>[0], message: string, at: number) => void,
) => CutFields | null;

/** NUL, escape and record terminator: a record that has one inside is looked at field by field. */
const NOT_INSIDE = ['\0', '\u001b', '\u001d'];
/** Records after which fields are looked for that come again: for fewer it is not worth the room. */
const BEFORE_POOL = 32;

/** The usual case: the text of all fields is decoded at once and cut. Fields that come again in a file are the same value. */
export function fieldCutter(): FieldCutter {
  const ends: number[] = [];
  let pool: FieldPool | null = null;
  let records = 0;
  return (run, charset, note) => {
    const { bytes, from, to, count, tags } = run;
    const part = bytes.subarray(from, to);
    const text = decodeUtf8(part);
    if (text === null || NOT_INSIDE.some((c) => text.includes(c))) return null;
    const ascii = text.length === part.length;
    if (charset === 'marc8' && (!ascii || text.includes('&#x'))) return null;
    const whole = ascii ? text : composed(text);
    if (!endsOf(whole, count, ends)) return null;
    const fields = new Array<Field>(count);
    const at: ByteRun = { bytes, from, to: 0, text: whole, textFrom: 0, textTo: 0 };
    const noteHere: Note = (code, message) => note(code, message, at.from);
    if (++records > BEFORE_POOL) pool ??= new FieldPool();
    pool?.nextRecord();
    for (let i = 0; i < count; i++) {
      const tag = tags[i]!;
      at.from = i === 0 ? from : at.to + 1;
      at.to = run.ends[i]!;
      at.textFrom = i === 0 ? 0 : ends[i - 1]! + 1;
      at.textTo = ends[i]!;
      fields[i] = pool?.fieldAt(tag, at) ?? readField(tag, whole.slice(at.textFrom, at.textTo), noteHere);
    }
    return { fields, ascii };
  };
}

/** Finds the ends of fields in a text; whether there are as many as there should be, the last of them at its end. */
function endsOf(text: string, count: number, ends: number[]): boolean {
  let end = -1;
  for (let i = 0; i < count; i++) {
    end = text.indexOf(FIELD_END_CHAR, end + 1);
    if (end < 0) return false;
    ends[i] = end;
  }
  return end === text.length - 1;
}
