import { windows1252Character } from '../../text';

const strict = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true });
const encoder = new TextEncoder();

/** A text in UTF-8. */
export const encodeUtf8 = (text: string): Uint8Array => encoder.encode(text);

/** The text of well-formed UTF-8, or null. */
export function decodeUtf8(bytes: Uint8Array): string | null {
  try {
    return strict.decode(bytes);
  } catch {
    return null;
  }
}

/**
 * Decodes UTF-8 sequence by sequence; a byte that belongs to none is read as Windows-1252.
 * `bad` are the offsets of such bytes, `places` where their characters stand in the text.
 */
export function decodeForgiving(bytes: Uint8Array): { text: string; bad: number[]; places: number[] } {
  const bad: number[] = [];
  const places: number[] = [];
  let text = '';
  let good = 0;
  const flush = (to: number) => {
    if (to > good) text += strict.decode(bytes.subarray(good, to));
  };
  for (let i = 0; i < bytes.length;) {
    const length = sequenceLength(bytes, i);
    if (length > 0) {
      i += length;
      continue;
    }
    flush(i);
    places.push(text.length);
    text += windows1252Character(bytes[i]!);
    bad.push(i);
    good = ++i;
  }
  flush(bytes.length);
  return { text, bad, places };
}

/** Length of the well-formed sequence at `i` (Unicode Standard, table 3-7), 0 when there is none. */
function sequenceLength(bytes: Uint8Array, i: number): number {
  const b = bytes[i]!;
  if (b < 0x80) return 1;
  const next = bytes[i + 1] ?? 0;
  const follows = (n: number) => {
    for (let k = 2; k <= n; k++) if (((bytes[i + k] ?? 0) & 0xc0) !== 0x80) return false;
    return true;
  };
  const between = (low: number, high: number) => next >= low && next <= high;
  if (b >= 0xc2 && b <= 0xdf) return between(0x80, 0xbf) ? 2 : 0;
  if (b >= 0xe0 && b <= 0xef) {
    const ok = b === 0xe0 ? between(0xa0, 0xbf) : b === 0xed ? between(0x80, 0x9f) : between(0x80, 0xbf);
    return ok && follows(2) ? 3 : 0;
  }
  if (b >= 0xf0 && b <= 0xf4) {
    const ok = b === 0xf0 ? between(0x90, 0xbf) : b === 0xf4 ? between(0x80, 0x8f) : between(0x80, 0xbf);
    return ok && follows(3) ? 4 : 0;
  }
  return 0;
}

/** Number of bytes a text takes in UTF-8. */
export function utf8Length(text: string): number {
  let n = text.length;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (c < 0x80) continue;
    if (c < 0x800) n += 1;
    else if (c >= 0xd800 && c <= 0xdbff && i + 1 < text.length) {
      n += 2;
      i++;
    } else n += 2;
  }
  return n;
}

/** NFC, skipping the work for text that cannot change. */
export const composed = (text: string): string =>
  /[\u0300-\uffff]/.test(text) ? text.normalize('NFC') : text;
