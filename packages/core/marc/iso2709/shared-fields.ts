import { composed, decodeUtf8 } from '../charset/utf8';
import type { DataField } from '../record';
import { readField, type Note } from './field';
import { hasLink, ReadField } from './read-field';

/** A power of two: fields kept, and places to note what was seen. */
const KEPT = 1 << 15;
/** A field longer than this seldom comes again. */
const LONG = 200;

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
 * The fields that come again and again in one file: headings, places, carriers, sources. A field with the same bytes as two before
 * it is the same value as the second: it need not be taken apart once more, and what is known of it holds.
 */
export class FieldPool {
  /** What was seen last at each place, and what is kept there: its hash, text and field, and the record that had it last. */
  readonly #seen = new Int32Array(KEPT);
  readonly #hashes = new Int32Array(KEPT);
  readonly #texts = new Array<string>(KEPT).fill('');
  readonly #fields = new Array<ReadField | null>(KEPT).fill(null);
  readonly #records = new Int32Array(KEPT);
  #record = 1;

  /** To be said before the fields of each record: no record has the same value twice. */
  nextRecord(): void {
    this.#record = (this.#record + 1) | 0;
  }

  /** The value of a field that came before; null when there is none. A linked field ($6) belongs to its record and is not shared. */
  fieldAt(tag: string, at: ByteRun): DataField | null {
    if (at.to - at.from > LONG || tag.startsWith('00')) return null;
    const hash = hashOf(tag, at.bytes, at.from, at.to);
    const slot = hash & (KEPT - 1);
    if (this.#hashes[slot] === hash && says(at, this.#texts[slot]!)) {
      const field = this.#fields[slot]!;
      if (field.tag !== tag || this.#records[slot] === this.#record) return null;
      this.#records[slot] = this.#record;
      return field;
    }
    if (this.#seen[slot] !== hash) {
      this.#seen[slot] = hash;
      return null;
    }
    return this.#keep(tag, at, hash, slot);
  }

  /** Keeps a field with a text of its own: a piece of the record's would keep all of that. */
  #keep(tag: string, at: ByteRun, hash: number, slot: number): DataField | null {
    const decoded = decodeUtf8(at.bytes.subarray(at.from, at.to));
    const own = decoded === null ? '' : composed(decoded);
    if (!says(at, own)) return null;
    let sound = true;
    const note: Note = () => (sound = false);
    const field = readField(tag, own, note);
    if (!sound || !(field instanceof ReadField) || hasLink(field)) return null;
    this.#hashes[slot] = hash;
    this.#texts[slot] = own;
    const shared = ReadField.shared(field);
    this.#fields[slot] = shared;
    this.#records[slot] = this.#record;
    return shared;
  }
}

const says = ({ text, textFrom, textTo }: ByteRun, wanted: string): boolean =>
  wanted.length === textTo - textFrom && text.startsWith(wanted, textFrom);

/** FNV-1a over tag, length and bytes, of a longer field every third; never 0, which stands for nothing seen. */
function hashOf(tag: string, bytes: Uint8Array, from: number, to: number): number {
  let hash = 0x811c9dc5 ^ (tag.charCodeAt(0) << 16) ^ (tag.charCodeAt(1) << 8) ^ tag.charCodeAt(2);
  const step = to - from > 48 ? 3 : 1;
  hash = Math.imul(hash ^ (to - from), 0x01000193);
  for (let i = to - 1; i >= from; i -= step) hash = Math.imul(hash ^ bytes[i]!, 0x01000193);
  hash ^= hash >>> 15;
  return hash | 0 || 1;
}
