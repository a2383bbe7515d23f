import type { Scheme } from './scheme';

/** How the mark for the author is made. */
export const AUTHOR_MARKS = ['letters', 'cutter', 'none'] as const;
export type AuthorMark = (typeof AUTHOR_MARKS)[number];
/** Whose name gives the mark: who the work is by, whom it is about, or its title. */
export const MARKED_BY = ['author', 'person', 'title'] as const;
export type MarkedBy = (typeof MARKED_BY)[number];

/** Which works a rule is for. */
export const RULE_WORKS = ['any', 'fiction', 'biography'] as const;
export type RuleWorks = (typeof RULE_WORKS)[number];

/**
 * How call numbers are made at some places, for some types and works; the first of the house's rules that fits is used, and its general
 * style where none does.
 */
export interface CallNumberRule {
  /** As the library calls it: "Fiction by author". */
  readonly name: string;
  /** Codes of branches, locations and types; an empty list means all. */
  readonly branches: readonly string[];
  readonly locations: readonly string[];
  readonly types: readonly string[];
  readonly works: RuleWorks;
  readonly scheme: Scheme;
  /** Whether a class is made; a call number without one has a prefix. */
  readonly hasClass: boolean;
  readonly prefix: string;
  readonly suffix: string;
  /** Decimals kept of a Dewey class. */
  readonly decimals: number;
  readonly mark: AuthorMark;
  readonly markedBy: MarkedBy;
  /** Letters of the mark, or digits of a Cutter number. */
  readonly markLength: number;
  /** Whether Mc and M' are filed as Mac. */
  readonly isMcAsMac: boolean;
  /** Whether the year of publication follows. */
  readonly hasYear: boolean;
}

/** A rule to begin with. */
export const FIRST_RULE: CallNumberRule = {
  name: '',
  branches: [],
  locations: [],
  types: [],
  works: 'any',
  scheme: 'dewey',
  hasClass: true,
  prefix: '',
  suffix: '',
  decimals: 2,
  mark: 'letters',
  markedBy: 'author',
  markLength: 3,
  isMcAsMac: false,
  hasYear: false,
};

/** What is wrong with a rule, beside its part. */
export function callNumberRuleProblems(
  rule: CallNumberRule,
): { field: keyof CallNumberRule; message: string }[] {
  const found: { field: keyof CallNumberRule; message: string }[] = [];
  if (rule.name.trim() === '') found.push({ field: 'name', message: 'Name the rule.' });
  if (!rule.hasClass && rule.prefix.trim() === '')
    found.push({ field: 'prefix', message: 'A call number without a class needs a prefix.' });
  if (!rule.hasClass && rule.mark === 'none')
    found.push({ field: 'mark', message: 'A call number without a class needs an author mark.' });
  return found;
}
