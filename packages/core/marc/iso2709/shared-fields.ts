import { composed, decodeUtf8 } from '../charset/utf8';
import { isData, type DataField, type Field } from '../record';
import type { Note } from './field';
import { readField } from './field';

/** A power of two: fields kept, and places to note what was seen. */
const KEPT = 1 << 14;
/** A field longer than this seldom comes again. */
const LONG = 200;

interface Kept {
  readonly hash: number;
  readonly text: string;
  readonly field: DataField;
  /** The record that had it last. */
  record: number;
}

const seen = new Int32Array(KEPT);
const kept: (Kept | undefined)[] = new Array<Kept | undefined>(KEPT).fill(undefined);
const shared = new WeakSet<Field>();
let record = 0;

/** Whether a field may be met again as the same value, in another record. */
export const isShared = (field: Field): boolean => shared.has(field);

/** To be said before the fields of each record: no record has the same value twice. */
export const nextRecord = (): void => void record++;

/**
 * Headings, places, carriers and sources come again and again, from record to record. A field with the same bytes as two before
 * it is the same value as the second: it need not be taken apart once more, and what is known of it holds. Null when
 * there is none. `text` is what the bytes from `from` to `to` say.
 */
export function sharedField(
  tag: string,
  bytes: Uint8Array,
  from: number,
  to: number,
  text: string,
): DataField | null {
  if (to - from > LONG || tag.startsWith('00')) return null;
  const hash = hashOf(tag, bytes, from, to);
  const at = hash & (KEPT - 1);
  const known = kept[at];
  if (known?.hash === hash && known.text === text && known.field.tag === tag) {
    if (known.record === record) return null;
    known.record = record;
    return known.field;
  }
  if (seen[at] !== hash) {
    seen[at] = hash;
    return null;
  }
  return keep(tag, bytes.subarray(from, to), text, hash);
}

/** Keeps a field with a text of its own: a piece of the record's would keep all of that. */
function keep(tag: string, bytes: Uint8Array, text: string, hash: number): DataField | null {
  const decoded = decodeUtf8(bytes);
  const own = decoded === null ? '' : composed(decoded);
  if (own !== text) return null;
  let sound = true;
  const note: Note = () => (sound = false);
  const field = readField(tag, own, note);
  if (!sound || !isData(field)) return null;
  kept[hash & (KEPT - 1)] = { hash, text: own, field, record };
  shared.add(field);
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
