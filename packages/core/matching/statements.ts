import { fold, romanNumber } from '../text';

const ORDINALS: readonly string[][] = [
  ['first', '1st', 'erste', 'premiere', 'primera'],
  ['second', '2nd', 'zweite', 'deuxieme', 'segunda'],
  ['third', '3rd', 'dritte', 'troisieme', 'tercera'],
  ['fourth', '4th', 'vierte', 'quatrieme', 'cuarta'],
  ['fifth', '5th', 'funfte', 'cinquieme', 'quinta'],
  ['sixth', '6th', 'sechste', 'sixieme', 'sexta'],
  ['seventh', '7th', 'siebte', 'septieme', 'septima'],
  ['eighth', '8th', 'achte', 'huitieme', 'octava'],
  ['ninth', '9th', 'neunte', 'neuvieme', 'novena'],
  ['tenth', '10th', 'zehnte', 'dixieme', 'decima'],
];
const NUMBERS = ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];

/** Which part of a set: the number in 245 $n (`Part II`, `v. 2`, `Book two`), else its words with those of $p. */
export function partOf(number: string, name: string): string {
  const words = fold(number).split(' ').filter(Boolean);
  for (const word of words) {
    const digits = /^(?:v|vol|bd|pt|no|t)?(\d+)$/.exec(word)?.[1];
    if (digits) return String(Number(digits));
  }
  for (const word of words.slice(words.length > 1 ? 1 : 0)) {
    const roman = romanNumber(word);
    if (roman !== null) return String(roman);
    const spelled = NUMBERS.indexOf(word);
    if (spelled >= 0) return String(spelled + 1);
  }
  return [...words, ...fold(name).split(' ').filter(Boolean)].join(' ');
}

/** `2` for "2nd ed." and "Second edition", `revised` where no number stands, `` for none or a first one. */
export function editionOf(statement: string): string {
  const text = fold(statement);
  if (text === '') return '';
  const digits = /\b(\d{1,3})(?:st|nd|rd|th|e|a|o)?\b/.exec(text)?.[1];
  const spelled = ORDINALS.findIndex((names) => names.some((n) => text.split(' ').includes(n)));
  const number = digits ? Number(digits) : spelled >= 0 ? spelled + 1 : null;
  if (number !== null) return number === 1 ? '' : String(number);
  if (/\b(rev|revised|updated|new|enl|enlarged|augm)\b/.test(text)) return 'revised';
  return '';
}

/** The number of pages that an extent gives: the largest that stands before p or pages (300 $a); null for none. */
export function pagesIn(extent: string): number | null {
  let most: number | null = null;
  for (const [, digits] of extent.matchAll(
    /(\d{1,5})\s*(?:unnumbered\s+)?(?:p\b|pages?\b|S\b|Seiten\b|s\b|p\.)/g,
  ))
    most = Math.max(most ?? 0, Number(digits));
  return most;
}
