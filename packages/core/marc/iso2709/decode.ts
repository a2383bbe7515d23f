import { composed, decodeForgiving, decodeUtf8 } from '../charset/utf8';
import { decodeMarc8 } from '../charset/marc8';
import type { Repair } from '../repair';

/** Which encoding a record is read in: what its leader says, or what the person says. */
export type Charset = 'utf8' | 'marc8';

type Note = (code: Repair['code'], message: string, at: number) => void;

/** Gives the function that decodes a stretch of this record's bytes, having weighed leader/09 against the bytes. */
export function decoderFor(
  bytes: Uint8Array,
  claimed: Charset,
  forced: Charset | undefined,
  note: Note,
): (from: number, to: number) => string {
  if (
    forced === undefined &&
    claimed === 'marc8' &&
    !bytes.includes(0x1b) &&
    bytes.some((b) => b >= 0x80) &&
    decodeUtf8(bytes) !== null
  ) {
    note('charset-claim', 'Leader position 9 says MARC-8; the bytes are UTF-8 and were read so.', 9);
    return (from, to) => composed(decodeUtf8(bytes.subarray(from, to))!);
  }
  if ((forced ?? claimed) === 'marc8') {
    return (from, to) => {
      const { text, unknown } = decodeMarc8(bytes.subarray(from, to));
      for (const at of unknown.slice(0, 3))
        note(
          'bad-bytes',
          `Byte ${hex(bytes[from + at]!)} is no MARC-8 character; U+FFFD stands for it.`,
          from + at,
        );
      return text;
    };
  }
  return (from, to) => {
    const part = bytes.subarray(from, to);
    const text = decodeUtf8(part);
    if (text !== null) return composed(text);
    const read = decodeForgiving(part);
    const where = from + read.bad[0]!;
    const count = read.bad.length === 1 ? 'One byte is' : `${read.bad.length} bytes are`;
    note('bad-bytes', `${count} not UTF-8 (first: ${hex(bytes[where]!)}) and read as Windows-1252.`, where);
    return composed(read.text);
  };
}

const hex = (byte: number) => byte.toString(16).toUpperCase().padStart(2, '0');
