import { composed, decodeUtf8 } from '../charset/utf8';
import type { DataField } from '../record';
import { readField, type Note } from './field';
import { hasLink, ReadField } from './read-field';

/** A power of two: fields kept, and places to note what was seen. */
const KEPT = 1 << 15;
/** A field longer than this seldom comes again. */
const LONG = 200;
/** What was seen last at each place, and what is kept there: its hash, text and field, and the record that had it last. */
const seen = new Int32Array(KEPT);
const hashes = new Int32Array(KEPT);
const texts: string[] = new Array<string>(KEPT).fill('');
const fields: (ReadField | null)[] = new Array<ReadField | null>(KEPT).fill(null);
const records = new Int32Array(KEPT);
let record = 1;

/** To be said before the fields of each record: no record has the same value twice. */
export const nextRecord = (): void => void (record = (record + 1) | 0);

/** Where a field stands: in the bytes of a record, and in the text that they say. */
export interface ByteRun {
  readonly bytes: Uint8Array;
  from: number;
  to: number;
  readonly text: string;
  textFrom: number;
  textTo: number;
}

/**
 * Headings, places, carriers and sources come again and again, from record to record. A field with the same bytes as two before
 * it is the same value as the second: it need not be taken apart once more, and what is known of it holds. Null when
 * there is none. A field that is linked to another ($6) belongs to its record and is not shared.
 */
export function sharedField(tag: string, at: ByteRun): DataField | null {
  if (at.to - at.from > LONG || tag.startsWith('00')) return null;
  const hash = hashOf(tag, at.bytes, at.from, at.to);
  const slot = hash & (KEPT - 1);
  if (hashes[slot] === hash && says(at, texts[slot]!)) {
    const field = fields[slot]!;
    if (field.tag !== tag || records[slot] === record) return null;
    records[slot] = record;
    return field;
  }
  if (seen[slot] !== hash) {
    seen[slot] = hash;
    return null;
  }
  return keep(tag, at, hash, slot);
}

const says = ({ text, textFrom, textTo }: ByteRun, wanted: string): boolean =>
  wanted.length === textTo - textFrom && text.startsWith(wanted, textFrom);

/** Keeps a field with a text of its own: a piece of the record's would keep all of that. */
function keep(tag: string, at: ByteRun, hash: number, slot: number): DataField | null {
  const decoded = decodeUtf8(at.bytes.subarray(at.from, at.to));
  const own = decoded === null ? '' : composed(decoded);
  if (!says(at, own)) return null;
  let sound = true;
  const note: Note = () => (sound = false);
  const field = readField(tag, own, note);
  if (!sound || !(field instanceof ReadField) || hasLink(field)) return null;
  hashes[slot] = hash;
  texts[slot] = own;
  fields[slot] = field.share();
  records[slot] = record;
  return field;
}

/** FNV-1a over tag, length and bytes, of a longer field every third; never 0, which stands for nothing seen. */
function hashOf(tag: string, bytes: Uint8Array, from: number, to: number): number {
  let hash = 0x811c9dc5 ^ (tag.charCodeAt(0) << 16) ^ (tag.charCodeAt(1) << 8) ^ tag.charCodeAt(2);
  const step = to - from > 48 ? 3 : 1;
  hash = Math.imul(hash ^ (to - from), 0x01000193);
  for (let i = to - 1; i >= from; i -= step) hash = Math.imul(hash ^ bytes[i]!, 0x01000193);
  hash ^= hash >>> 15;
  return hash | 0 || 1;
}
