import { withoutArticle, type FindPlan } from '@osier/core/find';
import { matchOf, rankedIn } from './queries.conditions';

/** How what was found is ranked by its words, as the full-text index is asked for it. */
export interface Ranking {
  /** Those found; null where words alone do not tell. */
  readonly match: string | null;
  /** The ranks from the first: titles that begin so, then all words in the title, in names, in subjects. */
  readonly tiers: readonly string[];
  /** How many of the tiers look into titles. */
  readonly inTitles: number;
  /** Filed titles that the words are exactly. */
  readonly exact: readonly string[];
  /** It is one word, which often fills a page from titles alone. */
  readonly isOneWord: boolean;
}

/** The columns by which is ranked, in their order. */
const RANKED = ['title', 'name', 'subject'] as const;

/** The titles that words are exactly, with and without their initial article. */
const exactTitles = (words: readonly string[]): string[] =>
  [words, withoutArticle(words) ?? []].map((w) => w.join(' ')).filter(Boolean);

/** Ranks what has all words, each as the beginning of one. */
export function wordRanking(words: readonly string[]): Ranking {
  const all = words.map(term).join(' AND ');
  return {
    match: all,
    tiers: [beginning(words), ...RANKED.map((column) => `${column} : (${all})`)],
    inTitles: 2,
    exact: exactTitles(words),
    isOneWord: words.length === 1,
  };
}

/** Ranks what a query finds by the words that it asks for; null where it asks for none. */
export function rankingOf(plan: FindPlan): Ranking | null {
  const tiers = RANKED.map((column) => rankedIn(column, plan));
  const [title] = tiers;
  if (tiers.every((t) => t === null)) return null;
  const leaves = (plan.type === 'and' ? plan.of : [plan]).filter((p) => p.type === 'words');
  const [leaf] = leaves;
  const only =
    title && leaves.length === 1 && leaf && leaf.how !== 'any' ? leaf.words.map((w) => w.text) : [];
  const match = matchOf(plan);
  const within = (tier: string) => (match === null ? tier : `(${tier}) AND (${match})`);
  return {
    match,
    tiers: [only.length ? beginning(only) : null, ...tiers].filter((t) => t !== null).map(within),
    inTitles: (only.length ? 1 : 0) + (title ? 1 : 0),
    exact: only.length ? exactTitles(only) : [],
    isOneWord: false,
  };
}

const beginning = (words: readonly string[]): string =>
  `title : ^ ${words.map((w) => `"${w}"`).join(' + ')} *`;

/** A word as the full-text index is asked for it: as a beginning, but for a single letter or digit, which begins too much. */
const term = (word: string): string => (/^[a-z0-9]$/.test(word) ? `"${word}"` : `"${word}"*`);
