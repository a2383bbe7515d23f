import { ANSEL, ASCII, EACC, marc8Set, type Marc8Set } from './marc8-tables';

/** Text decoded from MARC-8, and the offsets (within the bytes given) of codes that no table knows. */
export interface Marc8Text {
  readonly text: string;
  readonly unknown: readonly number[];
}

const ESC = 0x1b;
/** Double-width marks come as two halves, one before each letter; the first half stands for the whole. */
const DOUBLE_WIDTH: Record<number, { mark: string; secondHalf: number }> = {
  0x6b: { mark: '\u0361', secondHalf: 0x6c },
  0x7a: { mark: '\u0360', secondHalf: 0x7b },
};

/**
 * Decodes MARC-8 (MARC 21 Specifications: Character Sets and Encoding Options, part 2): escape sequences for G0 and
 * G1, combining marks moved behind their base, EACC in three bytes, `&#xXXXX;` for what MARC-8 lacks. Gives NFC.
 */
export function decodeMarc8(bytes: Uint8Array): Marc8Text {
  let g0 = marc8Set(ASCII)!;
  let g1 = marc8Set(ANSEL)!;
  let out = '';
  let marks = '';
  const unknown: number[] = [];
  const put = (char: string, combining: boolean) => {
    if (combining) {
      marks += char;
    } else {
      out += char + marks;
      marks = '';
    }
  };
  const putCode = (char: string | undefined, combining: boolean, at: number) => {
    if (char === undefined) unknown.push(at);
    put(char ?? '\ufffd', combining);
  };
  for (let i = 0; i < bytes.length;) {
    const byte = bytes[i]!;
    if (byte === ESC) {
      const shift = readEscape(bytes, i);
      if (shift) {
        if (shift.target === 0) g0 = shift.set;
        else g1 = shift.set;
        i += shift.length;
        continue;
      }
      unknown.push(i++);
      continue;
    }
    if (byte < 0x21 || byte === 0x7f || (byte >= 0x80 && byte <= 0xa0)) {
      const control = CONTROLS[byte];
      if (control !== undefined) put(control, false);
      else if (byte < 0x80) put(String.fromCharCode(byte), false);
      else unknown.push(i);
      i++;
      continue;
    }
    const set: Marc8Set = byte >= 0x80 ? g1 : g0;
    if (set.code === EACC) {
      const code = ((byte & 0x7f) << 16) | (((bytes[i + 1] ?? 0) & 0x7f) << 8) | ((bytes[i + 2] ?? 0) & 0x7f);
      const char = set.toUnicode.get(code);
      putCode(char, set.combining.has(code), i);
      i += 3;
      continue;
    }
    const code = set.toUnicode.has(byte) ? byte : byte & 0x7f;
    const double = set.code === ANSEL ? DOUBLE_WIDTH[code] : undefined;
    if (double) put(double.mark, true);
    else if (set.code === ANSEL && (code === 0x6c || code === 0x7b)) {
      // The second half is already told by the first.
    } else {
      const char = set.toUnicode.get(code);
      putCode(char, set.combining.has(code), i);
    }
    i++;
  }
  return { text: withReferences(out + marks).normalize('NFC'), unknown };
}

/** C1 controls that MARC-8 keeps: non-sorting begin and end, joiner and non-joiner. */
const CONTROLS: Record<number, string> = { 0x88: '\u0098', 0x89: '\u009c', 0x8d: '\u200d', 0x8e: '\u200c' };

function readEscape(bytes: Uint8Array, at: number): { target: 0 | 1; set: Marc8Set; length: number } | null {
  const b1 = bytes[at + 1];
  const b2 = bytes[at + 2];
  const b3 = bytes[at + 3];
  if (b1 === 0x73) return { target: 0, set: marc8Set(ASCII)!, length: 2 };
  if (b1 === 0x67 || b1 === 0x62 || b1 === 0x70) return { target: 0, set: marc8Set(b1)!, length: 2 };
  const found = (target: 0 | 1, final: number | undefined, length: number) => {
    const set = final === undefined ? undefined : marc8Set(final);
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
        return point <= 0x10ffff ? String.fromCodePoint(point) : whole;
      })
    : text;
