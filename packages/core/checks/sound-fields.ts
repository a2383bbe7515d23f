import type { DataField } from '../marc';

/** Fields remembered in all, twice this at most. */
const MOST = 40_000;
/** A field longer than this seldom comes again. */
const LONG = 200;

/** Fields that are known to be sound in records of which the same is expected. */
export interface SoundFields {
  has(field: DataField): boolean;
  add(field: DataField): void;
}

/**
 * Headings, places, carriers and sources come again and again, from record to record: where the checks of each field found
 * nothing, they need not look again at a field just like it, as long as the same is expected of it. The fields of the last
 * records are remembered, not all there ever were: two generations, the older of which is let go when the younger is full.
 */
export function soundFields(): (expected: string) => SoundFields {
  let young = new Map<string, Map<number, string>>();
  let old: typeof young = new Map();
  let count = 0;
  const put = (expected: string, hash: number, likeness: string) => {
    if (count >= MOST) {
      old = young;
      young = new Map();
      count = 0;
    }
    let known = young.get(expected);
    if (!known) young.set(expected, (known = new Map<number, string>()));
    known.set(hash, likeness);
    count++;
  };
  return (expected) => {
    const [now, before] = [young.get(expected), old.get(expected)];
    return {
      has(field) {
        const hash = hashOf(field);
        const likeness = now?.get(hash);
        if (likeness !== undefined && isLike(likeness, field)) return true;
        const earlier = before?.get(hash);
        if (earlier === undefined || !isLike(earlier, field)) return false;
        put(expected, hash, earlier);
        return true;
      },
      add(field) {
        const hash = hashOf(field);
        if (hash !== TOO_LONG) put(expected, hash, likenessOf(field));
      },
    };
  };
}

const TOO_LONG = 0;

/** A number by which fields that differ mostly differ, from a few characters of each subfield. */
function hashOf({ tag, ind1, ind2, subfields }: DataField): number {
  let hash = (tag.charCodeAt(0) << 16) | (tag.charCodeAt(1) << 8) | tag.charCodeAt(2);
  hash = Math.imul(hash ^ (ind1.charCodeAt(0) << 8) ^ ind2.charCodeAt(0), 0x01000193);
  let length = 0;
  for (let i = 0; i < subfields.length; i++) {
    const { code, value } = subfields[i]!;
    const n = value.length;
    length += n;
    hash = Math.imul(hash ^ code.charCodeAt(0) ^ (n << 8), 0x01000193);
    if (n === 0) continue;
    const part = n >> 2;
    for (let at = n - 1; at >= 0; at -= part + 1) hash = Math.imul(hash ^ value.charCodeAt(at), 0x01000193);
  }
  return length > LONG ? TOO_LONG : hash | 1;
}

const SIGN = '\u001f';
/** All that stands in a field; no field that is sound has the sign between subfields in a text. */
function likenessOf({ tag, ind1, ind2, subfields }: DataField): string {
  let text = tag + ind1 + ind2;
  for (const { code, value } of subfields) text += SIGN + code + value;
  return text;
}

/** Whether this is the likeness of the field, without putting that together. */
function isLike(likeness: string, { tag, ind1, ind2, subfields }: DataField): boolean {
  if (!likeness.startsWith(tag) || likeness[3] !== ind1 || likeness[4] !== ind2) return false;
  let at = 5;
  for (let i = 0; i < subfields.length; i++) {
    const { code, value } = subfields[i]!;
    if (likeness[at] !== SIGN || likeness[at + 1] !== code || !likeness.startsWith(value, at + 2))
      return false;
    at += 2 + value.length;
  }
  return at === likeness.length;
}
