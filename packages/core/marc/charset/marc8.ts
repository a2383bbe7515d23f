import { ANSEL, ASCII, EACC, marc8Tables, type Marc8Set, type Marc8Tables } from './marc8-tables';

/** Text decoded from MARC-8, with what tells whether the bytes were MARC-8 at all. */
export interface Marc8Text {
  readonly text: string;
  /** Offsets (within the bytes given) of codes that no table knows. */
  readonly unknown: readonly number[];
  /** Marks before something that carries none: a blank, a digit, the end. */
  readonly stranded: number;
  /** Marks that make one of the letters of the European alphabets with their base. */
  readonly usual: number;
  /** Of these, marks on a vowel, c with cedilla and n with tilde: what the languages of western Europe have most. */
  readonly western: number;
  /** Marks with a base that make no single character. */
  readonly unusual: number;
}

const ESC = 0x1b;
const SUBFIELD = 0x1f;
/** Double-width marks come as two halves, one before each letter; the first half stands for the whole. */
const DOUBLE_WIDTH: Record<number, string> = { 0x6b: '\u0361', 0x7a: '\u0360' };
const SECOND_HALVES = [0x6c, 0x7b];
/** C1 controls that MARC-8 keeps: non-sorting begin and end, joiner and non-joiner. */
const CONTROLS: Record<number, string> = { 0x88: '\u0098', 0x89: '\u009c', 0x8d: '\u200d', 0x8e: '\u200c' };

/**
 * Decodes MARC-8 (MARC 21 Specifications: Character Sets and Encoding Options, part 2): escape sequences for G0 and
 * G1, combining marks moved behind their base, EACC in three bytes, `&#xXXXX;` for what MARC-8 lacks. Subfield
 * delimiters and the code after them are left alone, whatever set is in force. Gives NFC. Where much is read, the tables are
 * kept by who reads.
 */
export function decodeMarc8(bytes: Uint8Array, tables: Marc8Tables = marc8Tables()): Marc8Text {
  let g0 = tables(ASCII)!;
  let g1 = tables(ANSEL)!;
  let out = '';
  let marks = '';
  const unknown: number[] = [];
  let [stranded, usual, western, unusual] = [0, 0, 0, 0];
  let secondHalfDue = false;
  const put = (char: string, combining: boolean) => {
    if (combining) {
      marks += char;
      return;
    }
    if (marks) {
      if (!LETTER.test(char)) stranded++;
      else if (isUsual(char, marks)) {
        usual++;
        if (/[aeiouAEIOU]/.test(char) || (char + marks).normalize('NFC').search(/[çÇñÑ]/) === 0) western++;
      } else unusual++;
    }
    out += char + marks;
    marks = '';
  };
  const putCode = (set: Marc8Set, code: number, at: number) => {
    const char = set.toUnicode.get(code);
    if (char === undefined) unknown.push(at);
    put(char ?? '\ufffd', set.combining.has(code));
  };
  const endMarks = () => {
    if (!marks) return;
    out += marks;
    marks = '';
    stranded++;
  };
  for (let i = 0; i < bytes.length;) {
    const byte = bytes[i]!;
    if (byte === ESC) {
      const shift = readEscape(bytes, i, tables);
      if (shift?.target === 0) g0 = shift.set;
      else if (shift) g1 = shift.set;
      else unknown.push(i);
      i += shift?.length ?? 1;
    } else if (byte === SUBFIELD) {
      endMarks();
      out += String.fromCharCode(byte);
      const code = bytes[i + 1];
      if (code !== undefined && code < 0x80 && code > 0x20) out += String.fromCharCode(code);
      i += code !== undefined && code < 0x80 && code > 0x20 ? 2 : 1;
    } else if (byte < 0x20 || byte === 0x7f) {
      endMarks();
      out += String.fromCharCode(byte);
      i++;
    } else if (byte === 0x20) {
      put(' ', false);
      i++;
    } else if (byte >= 0x80 && byte <= 0xa0) {
      const control = CONTROLS[byte];
      if (control === undefined) unknown.push(i);
      put(control ?? '\ufffd', false);
      i++;
    } else {
      const set: Marc8Set = byte >= 0x80 ? g1 : g0;
      const code = byte & 0x7f;
      if (set.code === EACC && (isControl(bytes[i + 1]) || isControl(bytes[i + 2]))) {
        // The character lost bytes; what follows is none of it.
        unknown.push(i++);
        put('\ufffd', false);
        continue;
      }
      if (set.code === EACC) {
        putCode(set, (code << 16) | (((bytes[i + 1] ?? 0) & 0x7f) << 8) | ((bytes[i + 2] ?? 0) & 0x7f), i);
        i += 3;
        continue;
      }
      if (set.code !== ANSEL) putCode(set, code, i);
      else if (DOUBLE_WIDTH[code] !== undefined) {
        put(DOUBLE_WIDTH[code], true);
        secondHalfDue = true;
      } else if (secondHalfDue && SECOND_HALVES.includes(code)) secondHalfDue = false;
      else putCode(set, code, i);
      i++;
    }
  }
  endMarks();
  return { text: withReferences(out).normalize('NFC'), unknown, stranded, usual, western, unusual };
}

const isControl = (byte: number | undefined) => byte === undefined || byte < 0x20;
const LETTER = /[\p{L}\p{M}]/u;
const isUsual = (base: string, marks: string) => {
  const whole = (base + marks).normalize('NFC');
  return (whole.length === 1 && whole.charCodeAt(0) <= 0x17f) || /[\u0360\u0361]/.test(marks);
};

/** Whether a well-formed escape sequence stands at this offset. */
export const isEscape = (bytes: Uint8Array, at: number, tables: Marc8Tables): boolean =>
  readEscape(bytes, at, tables) !== null;

function readEscape(
  bytes: Uint8Array,
  at: number,
  tables: Marc8Tables,
): { target: 0 | 1; set: Marc8Set; length: number } | null {
  const b1 = bytes[at + 1];
  const b2 = bytes[at + 2];
  const b3 = bytes[at + 3];
  if (b1 === 0x73) return { target: 0, set: tables(ASCII)!, length: 2 };
  if (b1 === 0x67 || b1 === 0x62 || b1 === 0x70) return { target: 0, set: tables(b1)!, length: 2 };
  const found = (target: 0 | 1, final: number | undefined, length: number) => {
    const set = final === undefined ? undefined : tables(final);
    return set ? { target, set, length } : null;
  };
  if (b1 === 0x24) {
    if (b2 === EACC) return found(0, EACC, 3);
    if (b2 === 0x2c) return found(0, b3, 4);
    if (b2 === 0x29 || b2 === 0x2d) return found(1, b3, 4);
  }
  if (b1 === 0x28 || b1 === 0x2c) return b2 === 0x21 ? found(0, b3, 4) : found(0, b2, 3);
  if (b1 === 0x29 || b1 === 0x2d) return b2 === 0x21 ? found(1, b3, 4) : found(1, b2, 3);
  return null;
}

const withReferences = (text: string) =>
  text.includes('&#x')
    ? text.replace(/&#x([0-9A-Fa-f]{4,6});/g, (whole, code: string) => {
        const point = parseInt(code, 16);
        return point <= 0x10ffff && !(point >= 0xd800 && point <= 0xdfff)
          ? String.fromCodePoint(point)
          : whole;
      })
    : text;
