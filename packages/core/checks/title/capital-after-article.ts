import type { HouseRules } from '../../house';
import type { MarcRecord } from '../../marc';
import { look, setText, type Check } from '../finding';
import { initialArticle } from '../initial-article';
import { inSubfield, subfieldsOf } from '../view';
import { isCommonIn, isNameIn } from './names-in';

/** How the first word after an initial article begins, by the house rule: nothing is told where it may be as it comes. */
export const capitalAfterArticle: Check = {
  rule: 'capital-after-article',
  title: 'Capital after an initial article',
  group: 'Title',
  source:
    'common practice, no source (libraries differ: capital as in any sentence, or the first word of the title proper)',
  needs: ['245'],
  run(view, tell, { wordAfterArticle }) {
    if (wordAfterArticle === 'as it comes') return;
    const { language } = view;
    for (const p of view.tagged('245'))
      for (const { value, i } of subfieldsOf(p, 'a').slice(0, 1)) {
        const next = asHouseHas(value, language, view.record, wordAfterArticle);
        if (next === null) continue;
        const start = initialArticle(value, language).length;
        const shown = `“${value.slice(0, start + 14).trim()}…”`;
        tell({
          severity: 'advice',
          where: inSubfield(p, i, start, start + 1),
          message:
            wordAfterArticle === 'small'
              ? `Capital after the initial article: ${shown}. Unless it is a name, write it small.`
              : `Small letter after the initial article: ${shown}. The house rules want a capital.`,
          fix: look(
            wordAfterArticle === 'small' ? 'Write it small' : 'Change to a capital',
            setText(p, i, next),
          ),
        });
      }
  },
};

/** The title as the house rule has it, or null when it is so already; see `lowerAfterArticle` for `ask`. */
export function asHouseHas(
  title: string,
  language: string,
  record: MarcRecord,
  rule: HouseRules['wordAfterArticle'],
  ask: 'not a name' | 'a common word' = 'not a name',
): string | null {
  if (rule === 'small') return lowerAfterArticle(title, language, record, ask);
  return rule === 'capital' ? raiseAfterArticle(title, language) : null;
}

/** The title with a capital behind its initial article; null when it has one, or no article. */
function raiseAfterArticle(title: string, language: string): string | null {
  const { length } = initialArticle(title, language);
  const head = /^\p{Ll}/u.exec(title.slice(length))?.[0];
  return length === 0 || head === undefined
    ? null
    : title.slice(0, length) + head.toUpperCase() + title.slice(length + head.length);
}

/**
 * The title with the word after its initial article in small letters, or null when there is nothing to do: no article,
 * a small letter already, a word of capitals (an acronym), a name by what the record says elsewhere, or German, where
 * nouns keep theirs. What a person does not look at asks for `a common word`: that the record shows that it is one.
 */
function lowerAfterArticle(
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
