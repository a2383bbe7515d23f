import { startsWithLetter } from '../text';

/**
 * Initial articles by MARC language code (Library of Congress, "Initial Definite and Indefinite Articles"). Those that
 * end in an apostrophe or hyphen stand before their word without a blank.
 */
const ARTICLES: Record<string, readonly string[]> = {
  afr: ['die', "'n"],
  ara: ['al-', 'el-'],
  baq: ['bat'],
  cat: ['el', 'la', 'els', 'les', 'lo', "l'", 'un', 'una'],
  dan: ['en', 'et', 'den', 'det', 'de'],
  dut: ['de', 'het', "'t", 'een', "'n"],
  eng: ['the', 'a', 'an'],
  fre: ['le', 'la', 'les', "l'", 'un', 'une'],
  ger: ['der', 'die', 'das', 'dem', 'den', 'des', 'ein', 'eine', 'einem', 'einen', 'einer', 'eines'],
  gla: ['an', 'an t-', 'am', 'na', "a'"],
  gle: ['an', 'an t-', 'na'],
  glg: ['o', 'a', 'os', 'as', 'un', 'unha'],
  heb: ['ha-', 'he-'],
  hun: ['a', 'az', 'egy'],
  ice: ['hinn', 'hin', 'hið'],
  ita: ['il', 'lo', 'la', 'i', 'gli', 'le', "l'", 'un', 'una', 'uno', "un'"],
  nno: ['ein', 'ei', 'eit', 'den', 'det', 'dei'],
  nob: ['en', 'et', 'ei', 'den', 'det', 'de'],
  nor: ['en', 'et', 'ei', 'ein', 'eit', 'den', 'det', 'de', 'dei'],
  oci: ['lo', 'la', 'los', 'las', "l'"],
  por: ['o', 'a', 'os', 'as', 'um', 'uma'],
  rum: ['un', 'o'],
  sco: ['the', 'a', 'an', 'ane'],
  spa: ['el', 'la', 'lo', 'los', 'las', 'un', 'una'],
  swe: ['en', 'ett', 'den', 'det', 'de'],
  wel: ['y', 'yr', "'r"],
  yid: ['der', 'di', 'dos', 'a', 'an'],
};

/** Words that begin like an article and are none: names of places and people, letters, phrases (the choice is ours). */
const NONE =
  /^(?:a[-+.]|a (?:&|is|la|l'|posteriori|priori|to|z\b)|l[-.]|l is|los (?:angeles|alamos)|las (?:vegas|palmas|cruces)|la (?:paz|plata|salle|rochelle|guardia|fontaine)|el (?:salvador|paso|dorado|greco|ni[nñ]o)|le (?:corbusier|havre|mans|carr[eé])|lo (?:mein|que|cual)|an t-sl|die hard|den haag|het loo|i ching|o['’.])/i;

/** No article is longer than five letters before its blank, apostrophe or hyphen. */
function hasShortStart(title: string): boolean {
  for (let i = 0; i < 7 && i < title.length; i++) if (" '’-\u00a0".includes(title[i]!)) return true;
  return false;
}

/** The initial article of a title in its language with what separates it, or '' when it has none. */
export function initialArticle(title: string, language: string): string {
  const articles = ARTICLES[language];
  if (!articles || !hasShortStart(title) || NONE.test(title)) return '';
  let best = '';
  for (const article of articles) {
    const start = title.slice(0, article.length).replace('’', "'");
    if (start.toLowerCase() !== article) continue;
    const found = /['-]$/.test(article)
      ? start
      : ' \u00a0'.includes(title[article.length] ?? '-')
        ? title.slice(0, article.length + 1)
        : '';
    if (found.length > best.length) best = title.slice(0, found.length);
  }
  return best;
}

/** How many characters at the start of a title do not file: signs before the article, the article, signs behind it. */
export function nonfilingCounts(title: string, language: string): readonly number[] {
  const before = startsWithLetter(title) ? '' : /^[\s"'“”‘’„«([¿¡*]*/.exec(title)![0];
  const article = initialArticle(title.slice(before.length), language);
  if (!article) return [0];
  const behind = /^[\s"'“”‘’„«([¿¡*]*/.exec(title.slice(before.length + article.length))![0];
  const count = before.length + article.length;
  return behind ? [count + behind.length, count] : [count];
}
