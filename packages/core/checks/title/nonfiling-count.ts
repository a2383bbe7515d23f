import { change, look, type Check } from '../finding';
import { initialArticle, nonfilingCounts } from '../initial-article';
import { wholeField } from '../view';

/** Fields with a count of nonfiling characters, and which indicator it is. */
const COUNTED: Record<string, 1 | 2> = {
  '130': 1,
  '222': 2,
  '240': 2,
  '242': 2,
  '243': 2,
  '245': 2,
  '440': 2,
  '630': 1,
  '730': 1,
  '740': 1,
  '830': 2,
};
const TAGS = Object.keys(COUNTED);

export const nonfilingCount: Check = {
  rule: 'nonfiling-count',
  title: 'Nonfiling characters and initial article differ',
  group: 'Title',
  source: 'MARC 21, nonfiling indicators; Library of Congress, Initial Definite and Indefinite Articles',
  needs: [...TAGS, '880'],
  each: true,
  run(view, tell) {
    const { language } = view;
    for (const p of view.ruled(TAGS)) {
      const which = COUNTED[p.rules];
      const title = which && p.subfields.find((s) => s.code === 'a')?.value;
      if (!which || !title) continue;
      const value = which === 1 ? p.field.ind1 : p.field.ind2;
      if (!(value >= '0' && value <= '9')) {
        tell({
          severity: p.field.tag === '245' ? 'error' : 'warning',
          where: wholeField(p),
          message: `Indicator ${which} of ${p.field.tag} is a number of nonfiling characters; “${value}” is not a number.`,
          fix: look('Set it to 0', change(p, { [`ind${which}`]: '0' })),
        });
        continue;
      }
      const own = p.rules === '245' || p.rules === '222' || p.rules === '242';
      const counts = nonfilingCounts(title, own ? language : '');
      if (!own && value === '0') continue;
      if (counts.includes(Number(value)) || isPlausible(title, Number(value), language)) continue;
      const [wanted] = counts;
      const article = initialArticle(title.replace(/^[^\p{L}]*/u, ''), language).trim();
      tell({
        severity: 'warning',
        where: wholeField(p),
        message:
          wanted! > 0
            ? `${p.field.tag} begins with the article “${article}”: ${wanted} nonfiling characters, not ${value}.`
            : `${p.field.tag} begins without an article: 0 nonfiling characters, not ${value}.`,
        fix: look(`Set the indicator to ${wanted}`, change(p, { [`ind${which}`]: String(wanted) })),
      });
    }
  },
};

/** A count that ends behind a short word or sign may be right in a language that 008 does not name. */
function isPlausible(title: string, count: number, language: string): boolean {
  if (count === 0) return false;
  const skipped = title.slice(0, count);
  if (!/[\s'’"-]$/.test(skipped)) return false;
  const word = skipped.replace(/[^\p{L}\p{M}]/gu, '');
  return word.length > 0 && word.length <= 4 && initialArticle(title, language) === '' && language !== 'eng';
}
