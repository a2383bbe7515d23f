import { ENTRY_LENGTH, FIELD_END, LEADER_LENGTH, RECORD_END } from './delimiters';
import { tagAt } from './tag-at';

/** Fields of the longest record that a directory can name. */
const MOST_FIELDS = Math.floor((99_999 - LEADER_LENGTH) / ENTRY_LENGTH);

/**
 * Where the parts of a record stand of which leader and directory are just as the standard has them. One is filled anew for record
 * after record; all places count from the first byte of `bytes`.
 */
export interface CleanLayout {
  bytes: Uint8Array;
  start: number;
  /** Behind the record terminator. */
  end: number;
  /** Where the first field begins. */
  data: number;
  count: number;
  /** Where each field ends: its terminator. The next one begins behind it. */
  readonly ends: Int32Array;
  /** Tags of the fields; only as many as there are fields are of this record. */
  readonly tags: string[];
  /** Leader/09: whether it says UTF-8. */
  utf8: boolean;
}

/** A layout to be filled. */
export const newLayout = (): CleanLayout => ({
  bytes: new Uint8Array(0),
  ...{ start: 0, end: 0, data: 0, count: 0, utf8: false },
  ends: new Int32Array(MOST_FIELDS),
  tags: [],
});

/** Where the tag of field `i` stands. */
export const tagPlace = (layout: CleanLayout, i: number): number =>
  layout.start + LEADER_LENGTH + i * ENTRY_LENGTH;

/**
 * Fills `layout` with the record from `start` up to `end`. False when its leader or its directory is not plainly right (lengths,
 * the fixed parts, a printable leader without quotation mark, ampersand or backslash, tags of letters and digits, fields that
 * follow each other in the order of their entries, each with its terminator); it must then be looked at closer.
 */
export function readLayout(layout: CleanLayout, bytes: Uint8Array, start: number, end: number): boolean {
  const base = fiveDigits(bytes, start + 12);
  if (!cleanLeader(bytes, start, end, base)) return false;
  const data = start + base;
  let next = data;
  let count = 0;
  for (let at = start + LEADER_LENGTH; at < data - 1; at += ENTRY_LENGTH) {
    const length = fourDigits(bytes, at + 3);
    if (length < 2 || fiveDigits(bytes, at + 7) !== next - data) return false;
    next += length;
    if (next >= end || bytes[next - 1] !== FIELD_END || !isTag(bytes, at)) return false;
    layout.tags[count] = tagAt(bytes, at);
    layout.ends[count++] = next - 1;
  }
  if (next !== end - 1) return false;
  layout.bytes = bytes;
  layout.start = start;
  layout.end = end;
  layout.data = data;
  layout.count = count;
  layout.utf8 = bytes[start + 9] === 0x61;
  return true;
}

function cleanLeader(bytes: Uint8Array, start: number, end: number, base: number): boolean {
  if (base < LEADER_LENGTH + 1 || start + base >= end || bytes[start + base - 1] !== FIELD_END) return false;
  if ((base - 1 - LEADER_LENGTH) % ENTRY_LENGTH !== 0 || bytes[end - 1] !== RECORD_END) return false;
  if (fiveDigits(bytes, start) !== end - start) return false;
  const coding = bytes[start + 9];
  if (coding !== 0x61 && coding !== 0x20) return false;
  for (let i = start + 5; i < start + LEADER_LENGTH; i++) if (!PLAIN[bytes[i]!]) return false;
  const is = (at: number, what: number) => bytes[start + at] === what;
  return is(10, 0x32) && is(11, 0x32) && is(20, 0x34) && is(21, 0x35) && is(22, 0x30) && is(23, 0x30);
}

/** Printable ASCII but for quotation mark, ampersand and backslash. */
const PLAIN = Uint8Array.from({ length: 256 }, (_, b) =>
  b >= 0x20 && b < 0x7f && b !== 0x22 && b !== 0x26 && b !== 0x5c ? 1 : 0,
);

const isTag = (bytes: Uint8Array, at: number) =>
  isLetterOrDigit(bytes[at]!) && isLetterOrDigit(bytes[at + 1]!) && isLetterOrDigit(bytes[at + 2]!);
const isLetterOrDigit = (b: number) =>
  (b >= 0x30 && b <= 0x39) || (b >= 0x41 && b <= 0x5a) || (b >= 0x61 && b <= 0x7a);

/** A number of four digits; -1 when there is anything else. */
function fourDigits(bytes: Uint8Array, at: number): number {
  const a = bytes[at]! - 48;
  const b = bytes[at + 1]! - 48;
  const c = bytes[at + 2]! - 48;
  const d = bytes[at + 3]! - 48;
  const ok = a >= 0 && a <= 9 && b >= 0 && b <= 9 && c >= 0 && c <= 9 && d >= 0 && d <= 9;
  return ok ? 1000 * a + 100 * b + 10 * c + d : -1;
}
function fiveDigits(bytes: Uint8Array, at: number): number {
  const first = bytes[at]! - 48;
  const rest = fourDigits(bytes, at + 1);
  return rest < 0 || first < 0 || first > 9 ? -1 : 10000 * first + rest;
}
