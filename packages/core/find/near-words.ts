import { editDistance } from '../text';

const LETTERS = [...'abcdefghijklmnopqrstuvwxyz0123456789'];
/** Longer words are not varied letter by letter. */
const LONGEST = 40;

/** All texts that one letter left out, put in, replaced or swapped with its neighbour makes of a folded word. */
export function oneLetterOff(word: string): string[] {
  const letters = [...word];
  if (letters.length > LONGEST) return [];
  const near = new Set<string>();
  const put = (at: number, length: number, ...by: readonly string[]) =>
    near.add([...letters.slice(0, at), ...by, ...letters.slice(at + length)].join(''));
  const others = [...new Set([...LETTERS, ...letters])];
  for (let at = 0; at <= letters.length; at++) {
    for (const letter of others) {
      put(at, 0, letter);
      if (at < letters.length) put(at, 1, letter);
    }
    if (at < letters.length) put(at, 1);
    if (at + 1 < letters.length) put(at, 2, letters[at + 1]!, letters[at]!);
  }
  near.delete(word);
  near.delete('');
  return [...near];
}

/** A word of the library, and in how many records it is. */
export interface KnownWord {
  readonly word: string;
  readonly records: number;
}

/** How far off a word may be to be meant: one letter in a short one, two in a longer. */
const reach = (word: string): number => (word.length < 4 ? 0 : word.length < 6 ? 1 : 2);

/** Which of some known words was meant most likely: the nearest, and of those the most frequent; null where none is near enough. */
export function meantWord(typed: string, known: readonly KnownWord[]): string | null {
  const most = reach(typed);
  const near = known
    .map((k) => ({ ...k, far: editDistance(typed, k.word, most) }))
    .filter((k) => k.far > 0 && k.far <= most)
    .sort((a, b) => a.far - b.far || b.records - a.records || (a.word < b.word ? -1 : 1));
  return near[0]?.word ?? null;
}
