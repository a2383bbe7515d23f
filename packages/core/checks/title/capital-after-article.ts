import type { MarcRecord } from '../../marc';
import { look, setText, type Check } from '../finding';
import { initialArticle } from '../initial-article';
import { inSubfield, subfieldsOf } from '../view';
import { isCommonIn, isNameIn } from './names-in';

export const capitalAfterArticle: Check = {
  rule: 'capital-after-article',
  title: 'Capital letter after the initial article',
  group: 'Title',
  source: 'common practice, no source (capital as in any sentence: only the first word and names)',
  needs: ['245'],
  run(view, tell) {
    const { language } = view;
    for (const p of view.tagged('245'))
      for (const { value, i } of subfieldsOf(p, 'a').slice(0, 1)) {
        const lowered = lowerAfterArticle(value, language, view.record);
        if (lowered === null) continue;
        const start = initialArticle(value, language).length;
        tell({
          severity: 'advice',
          where: inSubfield(p, i, start, start + 1),
          message: `Capital after the article: “${value.slice(0, start + 14).trim()}…”. If it is no name it is written small.`,
          fix: look('Write it small', setText(p, i, lowered)),
        });
      }
  },
};

/**
 * The title with the word after its initial article in small letters, or null when there is nothing to do: no article,
 * a small letter already, a word of capitals (an acronym), a name by what the record says elsewhere, or German, where
 * nouns keep theirs. What a person does not look at asks for `a common word`: that the record shows that it is one.
 */
export function lowerAfterArticle(
  title: string,
  language: string,
  record: MarcRecord,
  ask: 'not a name' | 'a common word' = 'not a name',
): string | null {
  if (language === 'ger') return null;
  const article = initialArticle(title, language);
  if (!article || isSmallLetter(title.charCodeAt(article.length))) return null;
  const word = /^[\p{L}\p{M}'’-]+/u.exec(title.slice(article.length))?.[0];
  if (!word) return null;
  const head = word[0]!;
  if (head === head.toLowerCase() || (word.length > 1 && word === word.toUpperCase())) return null;
  if (isNameIn(record, word, title.slice(article.length + word.length))) return null;
  if (ask === 'a common word' && !isCommonIn(record, word)) return null;
  return title.slice(0, article.length) + head.toLowerCase() + title.slice(article.length + 1);
}

/** A small letter of ASCII, as it mostly is. */
const isSmallLetter = (code: number) => code >= 0x61 && code <= 0x7a;
