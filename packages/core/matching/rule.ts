/** What two records may share. */
export const POINTS = ['control', 'lccn', 'isbn', 'issn', 'number', 'likeness'] as const;
export type PointKind = (typeof POINTS)[number];

/** One thing that is looked for, in the order in which matches are told. */
export interface MatchPoint {
  readonly by: PointKind;
  /** Out of 100; the weights of what two records share are added. */
  readonly weight: number;
  /** Sharing this is enough, if no guard speaks against it. */
  readonly alone: boolean;
}

/** What stops a match although the numbers agree. */
export interface Guards {
  /** Book and e-book, video … */
  readonly format: boolean;
  /** Parts of a set. */
  readonly part: boolean;
  /** Editions that are numbered differently. */
  readonly edition: boolean;
  /** Years of publication further apart than this; null for any. */
  readonly years: number | null;
  /** Titles that are not alike: suppliers use an ISBN again. */
  readonly title: boolean;
}

/** Ordered match points and the guards. */
export interface MatchRule {
  readonly points: readonly MatchPoint[];
  readonly guards: Guards;
}

/** Weight from which two records are taken for the same, and from which a person is asked. */
export const SURE = 100;
/** From this strength on a match is told as possible. */
export const POSSIBLE = 45;
/** Likeness below this adds nothing. */
export const LIKE = 75;

/** The match rule where no supplier sheet has one. */
export const DEFAULT_RULE: MatchRule = {
  points: [
    { by: 'control', weight: 100, alone: true },
    { by: 'lccn', weight: 90, alone: true },
    { by: 'isbn', weight: 90, alone: true },
    { by: 'issn', weight: 90, alone: true },
    { by: 'number', weight: 50, alone: false },
    { by: 'likeness', weight: 60, alone: false },
  ],
  guards: { format: true, part: true, edition: true, years: 3, title: true },
};

/** What is wrong with a match rule, as a sentence, or null. */
export function ruleProblem(rule: MatchRule): string | null {
  if (rule.points.length === 0)
    return 'A match rule needs at least one match point; without one nothing is ever found to be held.';
  const twice = rule.points.find((p, i) => rule.points.findIndex((o) => o.by === p.by) < i);
  if (twice) return `The match point “${POINT_NAMES[twice.by]}” is there twice.`;
  const outside = rule.points.find((p) => !(p.weight >= 1 && p.weight <= 100));
  if (outside) return `The weight of “${POINT_NAMES[outside.by]}” is from 1 to 100.`;
  if (!rule.points.some((p) => p.alone) && rule.points.reduce((n, p) => n + p.weight, 0) < SURE)
    return `All weights together are less than ${SURE}; no record could ever be sure to match.`;
  return null;
}

/** Match points as a person reads them. */
export const POINT_NAMES: Record<PointKind, string> = {
  control: 'control number (001 with 003, 035)',
  lccn: 'LCCN (010)',
  isbn: 'ISBN (020, 10 and 13 digits as one)',
  issn: 'ISSN (022)',
  number: 'other standard number (024, 028)',
  likeness: 'similar description',
};
