import { withoutArticle, type FindPlan, type FindWord } from '@osier/core/find';
import { rankedIn } from './queries.conditions';

/** A stretch of filed titles, up to its end and without it. */
export interface TitleRange {
  readonly from: string;
  readonly to: string;
  /** A title in it need not have all words that were asked for. */
  readonly isWider: boolean;
}

/** How what was found is ranked by its words. */
export interface Ranking {
  /** Filed titles that begin with the words, which are the first rank. */
  readonly begins: readonly TitleRange[];
  /** Filed titles that the words are exactly, which come before. */
  readonly exact: readonly string[];
  /** The ranks behind, as the full-text index is asked for them: all words in the title, in names, in subjects; of what is found by more than words, of others too. */
  readonly tiers: readonly string[];
  /** Words that a title or name has all of; none where the query does not say so. Of very many this is asked of filed titles and names alone. */
  readonly words: readonly FindWord[];
}

/** The columns by which is ranked, in their order. */
const RANKED = ['title', 'name', 'subject'] as const;
/** Behind every text that begins so. */
const END = '\u{10ffff}';

/** The words as titles are filed, with and without an initial article. */
const filed = (words: readonly string[]): string[] =>
  [words, withoutArticle(words) ?? []].map((w) => w.join(' ')).filter(Boolean);

/** Where titles stand that begin with words, of which the last may be the beginning of one. */
function beginning(words: readonly FindWord[], isWider: boolean): TitleRange[] {
  return filed(words.map((w) => w.text)).flatMap((text, i): TitleRange[] => {
    // Without its article a title has fewer words than were asked for.
    const wider = isWider || i > 0;
    if (words.at(-1)?.isBeginning) return [{ from: text, to: text + END, isWider: wider }];
    return [
      { from: text, to: `${text}\u0001`, isWider: wider },
      { from: `${text} `, to: `${text}!`, isWider: wider },
    ];
  });
}

/** Ranks what a query finds by the words that it asks for; null where it asks for none. */
export function rankingOf(plan: FindPlan): Ranking | null {
  const tiers = RANKED.map((column) => rankedIn(column, plan));
  if (tiers.every((t) => t === null)) return null;
  const [title] = tiers;
  const leaves = (plan.type === 'and' ? plan.of : [plan]).filter((p) => p.type === 'words');
  const [leaf] = leaves;
  const only = title && leaves.length === 1 && leaf && leaf.how !== 'any' ? leaf.words : [];
  return {
    begins: only.length ? beginning(only, plan.type !== 'words') : [],
    exact: filed(only.map((w) => w.text)),
    tiers: tiers.filter((t) => t !== null),
    words: only,
  };
}
