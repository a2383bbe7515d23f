/** The schemes of call numbers. */
export const SCHEMES = ['dewey', 'lc', 'nlm', 'own'] as const;
/** Scheme of a call number, as 852 first indicator 0, 1, 2 and 4/8 tell them apart. */
export type Scheme = (typeof SCHEMES)[number];

/** First indicator of 852 by scheme (MARC 21 Format for Holdings Data, 852). */
export const INDICATOR_OF: Readonly<Record<Scheme, string>> = { lc: '0', dewey: '1', nlm: '2', own: '8' };

/** The scheme of an 852 by its first indicator. */
export const schemeOfIndicator = (ind1: string): Scheme =>
  SCHEMES.find((s) => INDICATOR_OF[s] === ind1) ?? 'own';

/** Other names of the schemes: of their classification, and of one's own. */
const ALIASES: Readonly<Record<string, Scheme>> = { ddc: 'dewey', lcc: 'lc', local: 'own', generic: 'own' };
/** Every name by which a scheme may be asked for. */
export const SCHEME_NAMES: readonly string[] = [...SCHEMES, ...Object.keys(ALIASES)];

/** The scheme that a name is for, in any case; null for none. */
export function schemeNamed(name: string): Scheme | null {
  const plain = name.trim().toLowerCase();
  return SCHEMES.find((s) => s === plain) ?? ALIASES[plain] ?? null;
}
