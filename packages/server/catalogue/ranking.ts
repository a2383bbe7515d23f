import { withoutArticle, type FindPlan } from '@osier/core/find';
import { matchOf, rankedIn } from './queries.conditions';

/** A stretch of filed titles, up to its end and without it. */
export interface TitleRange {
  readonly from: string;
  readonly to: string;
  /** A title in it need not be among those found. */
  readonly isWider: boolean;
}

/** How what was found is ranked by its words. */
export interface Ranking {
  /** Those found, as the full-text index is asked for them; null where words alone do not tell. */
  readonly match: string | null;
  /** Filed titles that begin with the words, which are the first rank. */
  readonly begins: readonly TitleRange[];
  /** The ranks behind, as the full-text index is asked for them: all words in the title, in names, in subjects. */
  readonly tiers: readonly string[];
  /** Filed titles that the words are exactly. */
  readonly exact: readonly string[];
  /** It is one word, which often fills a page from titles alone. */
  readonly isOneWord: boolean;
}

/** The columns by which is ranked, in their order. */
const RANKED = ['title', 'name', 'subject'] as const;
/** Behind every text that begins so. */
const END = '\u{10ffff}';

/** The words as titles are filed, with and without an initial article. */
const filed = (words: readonly string[]): string[] =>
  [words, withoutArticle(words) ?? []].map((w) => w.join(' ')).filter(Boolean);

/** Where titles stand that begin with words, of which the last may be the beginning of one. */
function beginning(words: readonly string[], isOpen: boolean, isWider: boolean): TitleRange[] {
  return filed(words).flatMap((text, i): TitleRange[] => {
    // Without its article a title has fewer words than were asked for.
    const wider = isWider || i > 0;
    if (isOpen) return [{ from: text, to: text + END, isWider: wider }];
    return [
      { from: text, to: `${text}\u0001`, isWider: wider },
      { from: `${text} `, to: `${text}!`, isWider: wider },
    ];
  });
}

/** Ranks what has all words, each as the beginning of one. */
export function wordRanking(words: readonly string[]): Ranking {
  const all = words.map(term).join(' AND ');
  return {
    match: all,
    begins: beginning(words, isOpenWord(words.at(-1) ?? ''), false),
    tiers: RANKED.map((column) => `${column} : (${all})`),
    exact: filed(words),
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
  const only = title && leaves.length === 1 && leaf && leaf.how !== 'any' ? leaf.words : [];
  const texts = only.map((w) => w.text);
  const match = matchOf(plan);
  const within = (tier: string) => (match === null ? tier : `(${tier}) AND (${match})`);
  return {
    match,
    begins: only.length ? beginning(texts, only.at(-1)!.isBeginning, plan.type !== 'words') : [],
    tiers: tiers.filter((t) => t !== null).map(within),
    exact: only.length ? filed(texts) : [],
    isOneWord: false,
  };
}

/** A single letter or digit stands for itself: it begins too much. */
const isOpenWord = (word: string): boolean => !/^[a-z0-9]$/.test(word);

/** A word as the full-text index is asked for it: as a beginning, but for a single letter or digit, which begins too much. */
const term = (word: string): string => (isOpenWord(word) ? `"${word}"*` : `"${word}"`);
