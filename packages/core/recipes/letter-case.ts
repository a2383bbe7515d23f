import { initialArticle } from '../checks';

/**
 * A text in another case. A sentence begins with a capital and goes on small, but for German, where nouns keep theirs;
 * a word with capitals inside it (an acronym, a name like McKay) stays as it is unless all of the text is capitals.
 */
export function inCase(text: string, to: 'sentence' | 'title' | 'lower' | 'upper', language: string): string {
  if (to === 'upper') return text.toUpperCase();
  if (to === 'lower') return text.toLowerCase();
  const shouting = text === text.toUpperCase();
  const keeps = (word: string) => !shouting && /\p{L}.*\p{Lu}/u.test(word);
  if (to === 'title')
    return text.replace(/[\p{L}\p{M}'’]+/gu, (word, at: number) =>
      keeps(word) || (at > 0 && SMALL.has(word.toLowerCase()))
        ? keeps(word)
          ? word
          : word.toLowerCase()
        : word[0]!.toUpperCase() + word.slice(1).toLowerCase(),
    );
  if (language === 'ger' && !shouting) return text;
  const article = initialArticle(text, language).length;
  const first = text.search(/\p{L}/u);
  return text.replace(/[\p{L}\p{M}'’]+/gu, (word, at: number) => {
    if (keeps(word)) return word;
    const small = word.toLowerCase();
    return at === first && at >= 0 && (article === 0 || at < article)
      ? small[0]!.toUpperCase() + small.slice(1)
      : small;
  });
}

/** Words that stay small inside a title (common practice, no source). */
const SMALL = new Set('a an and as at but by for from in of on or the to with'.split(' '));
