import { decodeUtf8 } from '../charset/utf8';
import { tagPlace, type CleanLayout } from './clean-layout';
import { LEADER_LENGTH, SUBFIELD } from './delimiters';

/** Bytes that the JSON of a record of this length takes at the most: every byte escaped, and the names of its parts. */
export const jsonRoom = (length: number): number => length * 14 + 256;

/** A constant stretch of output as words of four bytes; an even number of them, so that up to seven bytes too many are written. */
interface Constant {
  readonly words: Int32Array;
  readonly length: number;
}
function constant(text: string): Constant {
  const padded = new Uint8Array(Math.ceil(text.length / 8) * 8);
  for (let i = 0; i < text.length; i++) padded[i] = text.charCodeAt(i);
  const view = new DataView(padded.buffer);
  const words = Int32Array.from({ length: padded.length / 4 }, (_, i) => view.getInt32(4 * i, true));
  return { words, length: text.length };
}
const OPEN = constant('{"leader":"');
const FIELDS = constant('","fields":[');
const DATA = constant('":{"subfields":[');
/** Behind the subfields of a field; the indicators stand at 10 and 21. */
const INDICATORS = constant('],"ind1":" ","ind2":" "}}');
/** Texts of up to four characters as one word: where a field begins, a subfield (its code goes between), and its text. */
const BEGIN = constant('{"').words[0]!;
const SUBFIELD_BEGIN = constant('{"\0"').words[0]!;
const TEXT_BEGIN = constant(':"').words[0]!;
const COLON = constant('":"').words[0]!;
const END = constant(']}\n');

const NOTHING = new DataView(new ArrayBuffer(0));
const viewOn = (view: DataView, bytes: Uint8Array): DataView =>
  view.buffer === bytes.buffer && view.byteOffset === bytes.byteOffset && view.byteLength === bytes.byteLength
    ? view
    : new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

/** Writes MARC-in-JSON from the bytes of records whose layout is clean; one serves for a whole file. */
export class JsonFromBytes {
  /** The bytes in hand, read and written four at a time; kept from record to record as long as the memory is the same. */
  #source: DataView = NOTHING;
  #target: DataView = NOTHING;
  /** Where the last value ended. */
  #stopped = 0;

  /**
   * Writes a record and a line feed behind it, and gives the place after it; -1 when a field is not plainly clean (any repair,
   * another encoding, text that is not NFC), so that the record must be read the long way. What it writes is what `marcJson`
   * writes of the record read. `out` needs `jsonRoom(length)` bytes.
   */
  write(layout: CleanLayout, out: Uint8Array, to: number): number {
    const { bytes, start, data, count, ends, utf8 } = layout;
    const source = (this.#source = viewOn(this.#source, bytes));
    const target = (this.#target = viewOn(this.#target, out));
    let o = this.#put(to, OPEN);
    for (let i = 0; i < LEADER_LENGTH; i += 4) target.setInt32(o + i, source.getInt32(start + i, true), true);
    o += LEADER_LENGTH;
    out[to + OPEN.length + 9] = 0x61;
    o = this.#put(o, FIELDS);
    let from = data;
    for (let i = 0; i < count; i++) {
      const at = tagPlace(layout, i);
      if (i > 0) out[o++] = 0x2c;
      target.setInt32(o, BEGIN | (source.getInt32(at, true) << 16), true);
      out[o + 4] = bytes[at + 2]!;
      o += 5;
      const control = bytes[at] === 0x30 && bytes[at + 1] === 0x30;
      o = control
        ? this.#controlField(bytes, from, ends[i]!, out, o, utf8)
        : this.#dataField(bytes, from, ends[i]!, out, o, utf8);
      if (o < 0) return -1;
      from = ends[i]! + 1;
    }
    return this.#put(o, END);
  }

  #put(to: number, { words, length }: Constant): number {
    const write = this.#target;
    let o = to;
    // Two at a time: these are most of what is written beside the texts.
    for (let i = 0; i < words.length; i += 2, o += 8) {
      write.setInt32(o, words[i]!, true);
      write.setInt32(o + 4, words[i + 1]!, true);
    }
    return to + length;
  }

  #controlField(
    bytes: Uint8Array,
    from: number,
    to: number,
    out: Uint8Array,
    at: number,
    utf8: boolean,
  ): number {
    this.#target.setInt32(at, COLON, true);
    let o = this.#value(bytes, from, to, out, at + 3, utf8);
    if (o < 0 || this.#stopped !== to) return -1;
    out[o++] = 0x22;
    out[o++] = 0x7d;
    return o;
  }

  #dataField(
    bytes: Uint8Array,
    from: number,
    to: number,
    out: Uint8Array,
    at: number,
    utf8: boolean,
  ): number {
    if (bytes[from + 2] !== SUBFIELD || !isPlain(bytes[from]!) || !isPlain(bytes[from + 1]!)) return -1;
    let o = this.#put(at, DATA);
    for (let i = from + 2; i < to; i = this.#stopped) {
      const code = bytes[i + 1]!;
      if (bytes[i] !== SUBFIELD || !isPlain(code) || code === 0x20) return -1;
      if (i > from + 2) out[o++] = 0x2c;
      this.#target.setInt32(o, SUBFIELD_BEGIN | (code << 16), true);
      this.#target.setInt32(o + 4, TEXT_BEGIN, true);
      o = this.#value(bytes, i + 2, to, out, o + 6, utf8);
      if (o < 0) return -1;
      out[o++] = 0x22;
      out[o++] = 0x7d;
    }
    const end = this.#put(o, INDICATORS);
    out[o + 10] = bytes[from]!;
    out[o + 21] = bytes[from + 1]!;
    return end;
  }

  /** Copies text up to a delimiter or `to`; -1 for anything that needs a closer look. */
  #value(bytes: Uint8Array, from: number, to: number, out: Uint8Array, at: number, utf8: boolean): number {
    const read = this.#source;
    const write = this.#target;
    let o = at;
    let i = from;
    let doubtful = false;
    const last = bytes.length - 4;
    for (;;) {
      // Every text is followed by a delimiter, which ends the copying of words; what was copied beyond it is written over.
      let special = 0;
      while (special === 0 && i <= last) {
        const word = read.getInt32(i, true);
        write.setInt32(o, word, true);
        special = specials(word);
        const clean = special === 0 ? 4 : (31 - Math.clz32(special & -special)) >> 3;
        i += clean;
        o += clean;
      }
      while (special === 0 && i < to && KIND[bytes[i]!] === COPY) out[o++] = bytes[i++]!;
      const b = bytes[i]!;
      if (i >= to || b === SUBFIELD) break;
      const kind = KIND[b];
      if (kind === HIGH) {
        const length = utf8 ? sequence(bytes, i) : 0;
        if (length === 0) return -1;
        if (!doubtful && !isSettled(b, bytes[i + 1]!)) doubtful = true;
        for (let k = 0; k < length; k++) out[o++] = bytes[i++]!;
        continue;
      }
      if (kind === REFUSE || (kind === AMPERSAND && !utf8 && bytes[i + 1] === 0x23)) return -1;
      if (kind === ESCAPE) out[o++] = 0x5c;
      out[o++] = b;
      i++;
    }
    this.#stopped = i;
    if (doubtful) {
      const text = decodeUtf8(bytes.subarray(from, i));
      if (text === null || text.normalize('NFC') !== text) return -1;
    }
    return o;
  }
}

/** A printable ASCII character that JSON leaves as it is. */
const isPlain = (b: number) => b >= 0x20 && b < 0x7f && b !== 0x22 && b !== 0x5c;

/** What a byte of text asks for. */
const COPY = 0;
const ESCAPE = 1;
const DELIMITER = 2;
const AMPERSAND = 3;
const HIGH = 4;
const REFUSE = 5;
const KIND = Uint8Array.from({ length: 256 }, (_, b) => {
  if (b >= 0x80) return HIGH;
  if (b === SUBFIELD) return DELIMITER;
  if (b < 0x20) return REFUSE;
  return b === 0x22 || b === 0x5c ? ESCAPE : b === 0x26 ? AMPERSAND : COPY;
});

/**
 * The high bit of each of four bytes that is no ASCII character, a control, a quotation mark, an ampersand or a backslash.
 * The lowest of them is exact; others may be set by a borrow from it.
 */
function specials(word: number): number {
  // A quotation mark and an ampersand differ in one bit.
  const either = (word | 0x04040404) ^ 0x26262626;
  const backslash = word ^ 0x5c5c5c5c;
  return (
    (word |
      (word - 0x20202020) |
      ((either - 0x01010101) & ~either) |
      ((backslash - 0x01010101) & ~backslash)) &
    0x80808080
  );
}

/** Length of the UTF-8 sequence at `i` (Unicode Standard, table 3-7); 0 for none, or for text that seems encoded twice. */
function sequence(bytes: Uint8Array, i: number): number {
  const b = bytes[i]!;
  const second = bytes[i + 1]!;
  if (b < 0xc2 || second < 0x80 || second > 0xbf) return 0;
  if (b < 0xe0) {
    const third = bytes[i + 2]!;
    const twice = b === 0xc3 && second >= 0x82 && second <= 0xb4 && third >= 0x80;
    return twice ? 0 : 2;
  }
  if ((bytes[i + 2]! & 0xc0) !== 0x80) return 0;
  if (b < 0xf0) {
    if ((b === 0xe0 && second < 0xa0) || (b === 0xed && second > 0x9f)) return 0;
    return 3;
  }
  if (b > 0xf4 || (bytes[i + 3]! & 0xc0) !== 0x80) return 0;
  if ((b === 0xf0 && second < 0x90) || (b === 0xf4 && second > 0x8f)) return 0;
  return 4;
}

/**
 * Whether a character can neither change under NFC nor combine with the one before: below U+0300, U+0391–U+0481,
 * U+048A–U+057F, U+3100–U+9FFF, U+B000–U+CFFF (Unicode Standard, annex 15: NFC quick check and combining classes).
 */
function isSettled(lead: number, second: number): boolean {
  if (lead < 0xcc) return true;
  if (lead === 0xce) return second >= 0x91;
  if (lead === 0xd2) return second >= 0x8a || second <= 0x81;
  if (lead <= 0xd5) return lead >= 0xcf;
  if (lead === 0xe3) return second >= 0x84;
  return (lead >= 0xe4 && lead <= 0xe9) || lead === 0xeb || lead === 0xec;
}
