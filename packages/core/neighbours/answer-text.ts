import { decodeMarc8, decodeUtf8 } from '../marc';

/** The text of an answer, and what its bytes turned out to be where they are not what they say. */
export interface AnswerText {
  readonly text: string;
  /** As a sentence; null where the bytes are what they say. */
  readonly told: string | null;
}

/**
 * The text of an XML answer: as its byte order mark and declaration say, if its bytes bear that out. Bytes that are no UTF-8 are read
 * as MARC-8 where nearly all marks make letters, else as Windows-1252.
 */
export function answerText(bytes: Uint8Array): AnswerText {
  const utf16 = utf16Of(bytes);
  if (utf16) return { text: new TextDecoder(utf16).decode(bytes), told: null };
  const said = declared(bytes);
  if (said !== 'utf-8') {
    // What says that it is Latin-1 and is good UTF-8 with letters beyond ASCII is UTF-8.
    const utf8 = isPlain(bytes) ? null : decodeUtf8(bytes);
    if (utf8 !== null) return { text: utf8, told: `The answer says that it is ${said} and is UTF-8.` };
    return { text: new TextDecoder(said).decode(bytes), told: null };
  }
  const text = decodeUtf8(bytes);
  if (text !== null) return { text, told: null };
  const marc8 = marc8Text(bytes);
  return marc8 !== null
    ? { text: marc8, told: 'The answer says that it is UTF-8 and is MARC-8.' }
    : {
        text: new TextDecoder('windows-1252').decode(bytes),
        told: 'The answer says that it is UTF-8 and is Windows-1252.',
      };
}

const utf16Of = (bytes: Uint8Array): string | null =>
  bytes[0] === 0xff && bytes[1] === 0xfe
    ? 'utf-16le'
    : bytes[0] === 0xfe && bytes[1] === 0xff
      ? 'utf-16be'
      : null;
const isPlain = (bytes: Uint8Array): boolean => bytes.every((b) => b < 0x80);

/** The encoding that the XML declaration names, UTF-8 for none or one that is not known (XML 1.0, 4.3.3). */
function declared(bytes: Uint8Array): string {
  const start = String.fromCharCode(...bytes.subarray(0, 200));
  const said = /<\?xml[^>]*?encoding\s*=\s*["']([\w.-]+)["']/i.exec(start)?.[1] ?? 'utf-8';
  try {
    return new TextDecoder(said).encoding;
  } catch {
    return 'utf-8';
  }
}

/** Combining marks stand before their letter, from E0 to FE (MARC 21, character sets, code table for extended Latin). */
const isMark = (byte: number): boolean => byte >= 0xe0 && byte <= 0xfe;

/** The text where nine in ten marks make a usual letter with what is behind them, and every byte is one of MARC-8; else null. */
function marc8Text(bytes: Uint8Array): string | null {
  const marks = bytes.reduce((n, byte) => n + (isMark(byte) ? 1 : 0), 0);
  const { text, usual, unknown } = decodeMarc8(bytes);
  return unknown.length === 0 && marks > 0 && usual >= marks * 0.9 ? text : null;
}
