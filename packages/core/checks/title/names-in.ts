import { isData, type MarcRecord } from '../../marc';

/** Fields whose words are names: persons, bodies, meetings, places, and where something was published. */
const NAMES = /^(?:[17][01][01]|6(?:00|10|11|51)|752|26[04])$/;
/** Subfields of them that are no names: dates, titles, relations, forms, sources. */
const NO_NAMES = 'cdefhlktvxy0123456789';
const WORD = /[\p{L}\p{M}'’-]+/gu;
const CAPITAL = /^\p{Lu}/u;

/**
 * Whether a word of a record's title is a name, by where else it stands with a capital in the same record: in a heading
 * for a name or place, or in the middle of a sentence of a note; or because the next word has one too, though the title goes on in
 * small letters (The Tolland Heath book).
 */
export function isNameIn(record: MarcRecord, word: string, rest: string): boolean {
  for (const f of record.fields) {
    if (!isData(f)) continue;
    for (const s of f.subfields) {
      const named = NAMES.test(f.tag) ? !NO_NAMES.includes(s.code) : f.tag.startsWith('6') && s.code === 'z';
      if (named ? hasWord(s.value, word) : f.tag.startsWith('5') && insideText(s.value, word)) return true;
    }
  }
  const following = wordsOf(rest);
  return CAPITAL.test(following[0] ?? '') && following.slice(1).some((w) => w.length > 3 && !CAPITAL.test(w));
}

/**
 * Whether a word of a record's title is a common one, by what the record says elsewhere: it stands in small letters in
 * another field, or a topical subject begins with it or a form of it (willow, Willows).
 */
export function isCommonIn(record: MarcRecord, word: string): boolean {
  const small = word.toLowerCase();
  return record.fields.some((f) => {
    if (!isData(f) || f.tag === '245') return false;
    const topical = /^65[035]$/.test(f.tag);
    return f.subfields.some(({ code, value }) =>
      wordsOf(value).some(
        (w, i) => w === small || (topical && code === 'a' && i === 0 && sameStem(w, small)),
      ),
    );
  });
}

/** Words that differ in their ending only: up to three letters behind a common beginning of four or more. */
function sameStem(a: string, b: string): boolean {
  const [x, y] = [a.toLowerCase(), b.toLowerCase()];
  let same = 0;
  while (same < x.length && same < y.length && x[same] === y[same]) same++;
  return same >= Math.min(4, x.length, y.length) && Math.max(x.length, y.length) - same <= 3;
}

const wordsOf = (text: string): readonly string[] => text.match(WORD) ?? [];
const hasWord = (text: string, word: string) => text.includes(word) && wordsOf(text).includes(word);

/** Whether the word stands behind a small one, so that no sentence begins with it. */
const insideText = (text: string, word: string) =>
  text.includes(word) && wordsOf(text).some((w, i, all) => w === word && i > 0 && !CAPITAL.test(all[i - 1]!));
