import { decodeForgiving, decodeUtf8 } from './utf8';

/** Text of a stream of UTF-8, in which bytes that are none are read as Windows-1252. */
export interface Utf8Stream {
  push(chunk: Uint8Array): string;
  end(): string;
  /** How many bytes between two characters of the text so far were no UTF-8. Earlier ones are forgotten. */
  badBetween(from: number, to: number): number;
}

/** Decodes UTF-8 that comes in pieces. */
export function utf8Stream(): Utf8Stream {
  let rest: Uint8Array = new Uint8Array(0);
  let length = 0;
  let bad: number[] = [];
  const decode = (bytes: Uint8Array): string => {
    let text = decodeUtf8(bytes);
    if (text === null) {
      const read = decodeForgiving(bytes);
      text = read.text;
      for (const place of read.places) bad.push(length + place);
    }
    length += text.length;
    return text;
  };
  return {
    push(chunk) {
      const bytes = new Uint8Array(rest.length + chunk.length);
      bytes.set(rest);
      bytes.set(chunk, rest.length);
      const end = bytes.length - unfinished(bytes);
      rest = bytes.slice(end);
      return decode(bytes.subarray(0, end));
    },
    end() {
      const text = decode(rest);
      rest = new Uint8Array(0);
      return text;
    },
    badBetween(from, to) {
      bad = bad.filter((at) => at >= from);
      return bad.filter((at) => at < to).length;
    },
  };
}

/** Bytes at the end that may be the beginning of a character of which more is to come. */
function unfinished(bytes: Uint8Array): number {
  for (let back = 1; back <= 3 && back <= bytes.length; back++) {
    const b = bytes[bytes.length - back]!;
    if ((b & 0xc0) === 0x80) continue;
    return b >= 0xc2 && back < (b >= 0xf0 ? 4 : b >= 0xe0 ? 3 : 2) ? back : 0;
  }
  return 0;
}
