/** Initial articles by MARC language code (Library of Congress list "Initial Definite and Indefinite Articles"). */
const ARTICLES: Record<string, readonly string[]> = {
  eng: ['the', 'a', 'an'],
  fre: ['le', 'la', 'les', "l'", 'un', 'une'],
  ger: ['der', 'die', 'das', 'ein', 'eine'],
  spa: ['el', 'la', 'los', 'las', 'un', 'una'],
  ita: ['il', 'lo', 'la', 'i', 'gli', 'le', "l'", 'un', 'una', 'uno', "un'"],
  por: ['o', 'a', 'os', 'as', 'um', 'uma'],
  dut: ['de', 'het', "'t", 'een', "'n"],
  swe: ['en', 'ett', 'den', 'det', 'de'],
  dan: ['en', 'et', 'den', 'det', 'de'],
  wel: ['y', 'yr'],
  gle: ['an', 'na'],
};

/** The initial article of a title in its language with what separates it, or '' when it has none. */
export function initialArticle(title: string, language: string): string {
  for (const article of ARTICLES[language] ?? []) {
    const start = title.slice(0, article.length).replace('’', "'");
    if (start.toLowerCase() !== article) continue;
    const after = title.slice(article.length);
    if (article.endsWith("'")) return title.slice(0, article.length);
    if (after.startsWith(' ')) return title.slice(0, article.length + 1);
  }
  return '';
}
