import type { TextMatch, Which } from './step-values';

/** Tags in a sentence: `every 65X`. */
export const tagsName = (tags: string): string => `every ${tags.replaceAll('.', 'X')}`;
/** Subfields in a sentence: `$a and $b`, `the text` for all. */
export const codesName = (codes: string): string =>
  codes === '' ? 'the text' : [...codes].map((c) => `$${c}`).join(' and ');
/** A text in quotation marks. */
export const inQuotes = (text: string): string => `“${text}”`;
/** The same; blanks are named. */
export const blankOr = (value: string): string => (value.trim() === '' ? 'blank' : inQuotes(value));
/** What a text must be like, behind a noun. */
export const matching = (match: TextMatch | undefined): string =>
  match ? ` that ${match.expression ? 'matches' : 'has'} ${inQuotes(match.find)}` : '';
/** That a match is an expression. */
export const expressed = (match: TextMatch): string => (match.expression ? ' (an expression)' : '');
/** Which of several. */
export const whichName = (w: Which): string => (w === 'all' ? 'every' : `the ${w}`);
