import type { Format } from '../format';
import type { Check } from './finding';
import type { RecordView } from './view';

const TAGS = 1000;
const BIBLIOGRAPHIC: readonly Format[] = ['bibliographic'];
const FORMATS: readonly Format[] = ['bibliographic', 'authority', 'holdings'];

/**
 * Which checks a record wants hangs on its format and its tags. For each tag there is a set of the checks that need it, a
 * bit for each; the sets of a record's tags are put together. Gives for each check which of some records want it; null stands
 * for a record that wants none.
 */
export function wantedBy(checks: readonly Check[]): (views: readonly (RecordView | null)[]) => number[][] {
  const words = Math.ceil(checks.length / 32) || 1;
  const needed = Object.fromEntries(FORMATS.map((f) => [f, sets(checks, f, words)])) as Record<
    Format,
    Int32Array
  >;
  const bits = new Int32Array(words);
  return (views) => {
    const wanting = checks.map((): number[] => []);
    for (let i = 0; i < views.length; i++) {
      const view = views[i];
      if (!view) continue;
      const of = needed[view.format];
      for (let w = 0; w < words; w++) bits[w] = of[TAGS * words + w]!;
      let before = '';
      for (const { field } of view.data) {
        if (field.tag === before) continue;
        before = field.tag;
        const at = numberOf(before) * words;
        for (let w = 0; w < words; w++) bits[w]! |= of[at + w]!;
      }
      for (let w = 0; w < words; w++)
        for (let left = bits[w]!; left !== 0; left &= left - 1)
          wanting[32 * w + 31 - Math.clz32(left & -left)]!.push(i);
    }
    return wanting;
  };
}

/** The sets of all tags one behind the other, and last that of the checks that need none. */
function sets(checks: readonly Check[], format: Format, words: number): Int32Array {
  const all = new Int32Array((TAGS + 1) * words);
  for (const [c, { formats = BIBLIOGRAPHIC, needs }] of checks.entries()) {
    if (!formats.includes(format)) continue;
    for (const set of needs?.map(Number) ?? [TAGS]) all[set * words + (c >> 5)]! |= 1 << (c & 31);
  }
  return all;
}

/** A tag of digits as a number; a thousand or more for any other. */
function numberOf(tag: string): number {
  let number = 0;
  for (let i = 0; i < 3; i++) {
    const digit = tag.charCodeAt(i) - 0x30;
    if (!(digit >= 0 && digit <= 9)) return TAGS;
    number = 10 * number + digit;
  }
  return number;
}
