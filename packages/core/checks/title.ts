import { briefOf } from '../access';
import { inSubfield, placed, wholeField, type Check } from './finding';
import { initialArticle } from './initial-article';

export const nonfilingCount: Check = {
  rule: 'nonfiling-count',
  title: 'Nonfiling characters against the initial article',
  source: 'MARC 21, 245 second indicator, and the list of initial articles',
  *run(record) {
    const p = placed(record, '245')[0];
    const title = p?.field.subfields.find((s) => s.code === 'a')?.value;
    if (!p || !title) return;
    const count = Number(p.field.ind2);
    const article = initialArticle(title, briefOf(record).language);
    if (!/\d/.test(p.field.ind2)) {
      yield {
        severity: 'error',
        where: wholeField(p),
        message: `The second indicator of 245 counts characters; “${p.field.ind2}” is no number.`,
      };
    } else if (
      article.length !== count &&
      (article !== '' || !/^[\s"'“‘«([¿¡]/.test(title)) &&
      !(article === '' && count > 0 && title[count - 1] === ' ')
    ) {
      yield {
        severity: 'warning',
        where: wholeField(p),
        message: article
          ? `The title begins with the article “${article.trim()}”: nonfiling characters ${article.length}, not ${count}.`
          : `The title begins with no article: nonfiling characters 0, not ${count}.`,
        fix: {
          sentence: `Set the second indicator to ${article.length}`,
          safe: false,
          edits: [{ op: 'replace', at: p.at, field: { ...p.field, ind2: String(article.length) } }],
        },
      };
    }
  },
};

export const capitalAfterArticle: Check = {
  rule: 'capital-after-article',
  title: 'Capital letter after the initial article',
  source: 'common practice, no source (capital as in any sentence: only the first word and names)',
  *run(record) {
    for (const p of placed(record, '245')) {
      const at = p.field.subfields.findIndex((s) => s.code === 'a');
      const value = p.field.subfields[at]?.value;
      if (value === undefined) continue;
      const lowered = lowerAfterArticle(value, briefOf(record).language);
      if (lowered === null) continue;
      const start = initialArticle(value, briefOf(record).language).length;
      yield {
        severity: 'advice',
        where: inSubfield(p, at, start, start + 1),
        message: `Capital after the article: “${value.slice(0, start + 14).trim()}…”. If it is no name it is written small.`,
        fix: {
          sentence: 'Write it small',
          safe: false,
          edits: [{ op: 'text', at: p.at, subfield: at, value: lowered }],
        },
      };
    }
  },
};

/**
 * The title with the word after its initial article in small letters, or null when there is nothing to do: no article,
 * a small letter already, a word of capitals (an acronym), or German, where nouns keep theirs.
 */
export function lowerAfterArticle(title: string, language: string): string | null {
  if (language === 'ger') return null;
  const article = initialArticle(title, language);
  const word = /^[\p{L}\p{M}'’-]+/u.exec(title.slice(article.length))?.[0];
  if (!article || !word) return null;
  const head = word[0]!;
  if (head === head.toLowerCase() || (word.length > 1 && word === word.toUpperCase())) return null;
  return title.slice(0, article.length) + head.toLowerCase() + title.slice(article.length + 1);
}
