import { initialArticle } from '../checks';

/** Languages whose initial articles are not filed; a search does not say its own. */
const LANGUAGES = ['eng', 'ger', 'fre', 'ita', 'spa', 'dut', 'dan', 'swe', 'por'];

/** Folded words of a title without what may be its initial article, as titles are filed; null where there is none. */
export function withoutArticle(words: readonly string[]): string[] | null {
  const text = words.join(' ');
  return words.length > 1 && LANGUAGES.some((language) => initialArticle(text, language) !== '')
    ? words.slice(1)
    : null;
}
