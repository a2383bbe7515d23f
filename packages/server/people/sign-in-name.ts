/** A sign-in name as it is compared: compatibility forms, case and blanks make no difference. */
export const foldedLogin = (login: string): string =>
  login
    .normalize('NFKC')
    .toLowerCase()
    .normalize('NFKC')
    .replace(/[\s\u00ad\u200b-\u200f\u2060\ufeff]+/gu, '');

const SCRIPTS = [
  'Latin',
  'Greek',
  'Cyrillic',
  'Armenian',
  'Hebrew',
  'Arabic',
  'Devanagari',
  'Thai',
  'Georgian',
  'Hangul',
].map((name) => new RegExp(`\\p{Script=${name}}`, 'u'));
const EAST_ASIAN = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/u;

/** What is wrong with a sign-in name, or null: letters of two scripts may look like those of another name. */
export function loginProblem(login: string): string | null {
  const name = foldedLogin(login);
  if (name.length < 2) return 'A sign-in name has at least two characters.';
  const scripts = [...SCRIPTS, EAST_ASIAN].filter((s) => s.test(name)).length;
  if (scripts > 1) return 'A sign-in name has letters of one script only.';
  return /^[\p{L}\p{M}\p{N}._@-]+$/u.test(name)
    ? null
    : 'A sign-in name has letters, digits and . _ @ - only.';
}
