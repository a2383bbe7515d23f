import { composed, decodeForgiving, decodeUtf8 } from '../charset/utf8';
import { decodeMarc8, isEscape } from '../charset/marc8';
import type { Marc8Tables } from '../charset/marc8-tables';
import type { Repair } from '../repair';

/** Which encoding a record is read in: what its leader says, or what the person says. */
export type Charset = 'utf8' | 'marc8';

type Note = (code: Repair['code'], message: string, at: number) => void;
type Decode = (from: number, to: number) => string;
interface Stretch {
  readonly start: number;
  readonly end: number;
}

/**
 * Gives the function that decodes one field of a record. What leader/09 claims is weighed against the bytes field by
 * field, the other fields of the record being evidence for those that are doubtful; what is not as claimed is told.
 */
export function decoderFor(
  bytes: Uint8Array,
  fields: readonly Stretch[],
  { claimed, forced, marc8 }: Encoding,
  note: Note,
): Decode {
  if (forced === 'marc8') return asMarc8(bytes, marc8, note);
  if (forced === 'utf8') return forgiving(bytes, note);
  return claimed === 'utf8'
    ? weighedUtf8(bytes, fields, marc8, note)
    : weighedMarc8(bytes, fields, marc8, note);
}

/** What the leader claims, what the person says if anything, and the tables of MARC-8. */
export interface Encoding {
  readonly claimed: Charset;
  readonly forced: Charset | undefined;
  readonly marc8: Marc8Tables;
}

/** Read as UTF-8; fields that are not are MARC-8 when the marks in them say so, else bytes of Windows-1252 among UTF-8. */
function weighedUtf8(bytes: Uint8Array, fields: readonly Stretch[], tables: Marc8Tables, note: Note): Decode {
  const odd = fields.filter((f) => {
    const part = bytes.subarray(f.start, f.end);
    return hasEscape(part, tables) || decodeUtf8(part) === null;
  });
  if (odd.length === 0 || !areMarc8(bytes, odd, tables)) return forgiving(bytes, note);
  const places = new Set(odd.map((f) => f.start));
  note('charset-claim', 'Leader/09 says UTF-8; fields in MARC-8 were decoded as MARC-8.', 9);
  const marc8 = asMarc8(bytes, tables, note);
  const asUtf8 = forgiving(bytes, note);
  return (from, to) => (places.has(from) ? marc8 : asUtf8)(from, to);
}

/**
 * Escape sequences; or marks that make letters with what follows, mostly vowels, and nothing that MARC-8 has not. (An é
 * of Windows-1252 before a consonant is a caron on it in MARC-8; before a vowel it hardly ever stands.)
 */
function areMarc8(bytes: Uint8Array, odd: readonly Stretch[], tables: Marc8Tables): boolean {
  let [usual, western] = [0, 0];
  for (const f of odd) {
    const part = bytes.subarray(f.start, f.end);
    if (hasEscape(part, tables)) return true;
    const read = decodeMarc8(part, tables);
    if (read.unknown.length || read.stranded || read.unusual) return false;
    usual += read.usual;
    western += read.western;
  }
  return western >= 2 && western * 3 >= usual * 2;
}

/** Read as MARC-8; a field that is well-formed UTF-8 is UTF-8, for MARC-8 text hardly ever is by chance. */
function weighedMarc8(
  bytes: Uint8Array,
  fields: readonly Stretch[],
  tables: Marc8Tables,
  note: Note,
): Decode {
  const utf8 = new Set<number>();
  const rest: Stretch[] = [];
  for (const f of fields) {
    const part = bytes.subarray(f.start, f.end);
    if (isAscii(part) || hasEscape(part, tables)) continue;
    if (decodeUtf8(part) !== null) utf8.add(f.start);
    else rest.push(f);
  }
  if (utf8.size)
    note(
      'charset-claim',
      rest.length
        ? 'Leader/09 says MARC-8; fields in UTF-8 were decoded as UTF-8.'
        : 'Leader/09 says MARC-8; the bytes are UTF-8 and were decoded as UTF-8.',
      9,
    );
  const asUtf8: Decode = (from, to) => composed(decodeUtf8(bytes.subarray(from, to))!);
  let asClaimed = asMarc8(bytes, tables, note);
  const mixed = utf8.size > 0 && rest.length > 0;
  if (rest.length && (areWindows1252(bytes, rest, tables) || (mixed && !areMarc8(bytes, rest, tables)))) {
    note(
      'charset-claim',
      'Leader/09 says MARC-8; the bytes are Windows-1252 and were decoded as Windows-1252.',
      9,
    );
    const places = new Set(rest.map((f) => f.start));
    const plain = asMarc8(bytes, tables, note);
    asClaimed = (from, to) =>
      places.has(from) ? composed(decodeForgiving(bytes.subarray(from, to)).text) : plain(from, to);
  }
  return (from, to) => (utf8.has(from) ? asUtf8 : asClaimed)(from, to);
}

/** Bytes that MARC-8 has not, or marks before blanks and ends, and not one mark that makes a usual letter. */
function areWindows1252(bytes: Uint8Array, fields: readonly Stretch[], tables: Marc8Tables): boolean {
  let wrong = 0;
  for (const f of fields) {
    const read = decodeMarc8(bytes.subarray(f.start, f.end), tables);
    if (read.usual) return false;
    wrong += read.unknown.length + read.stranded;
  }
  return wrong > 0;
}

function asMarc8(bytes: Uint8Array, tables: Marc8Tables, note: Note): Decode {
  return (from, to) => {
    const { text, unknown } = decodeMarc8(bytes.subarray(from, to), tables);
    for (const at of unknown.slice(0, 3))
      note(
        'bad-bytes',
        `Byte ${hex(bytes[from + at]!)} is no MARC-8 character; U+FFFD stands for it.`,
        from + at,
      );
    return text;
  };
}

function forgiving(bytes: Uint8Array, note: Note): Decode {
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

const isAscii = (part: Uint8Array) => part.every((b) => b < 0x80);
function hasEscape(part: Uint8Array, tables: Marc8Tables): boolean {
  for (let i = part.indexOf(0x1b); i >= 0; i = part.indexOf(0x1b, i + 1))
    if (isEscape(part, i, tables)) return true;
  return false;
}
const hex = (byte: number) => byte.toString(16).toUpperCase().padStart(2, '0');
