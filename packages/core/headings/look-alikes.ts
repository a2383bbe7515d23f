import {
  bucketsOf,
  candidates,
  comparedForm,
  compareForms,
  eachOf,
  NOTHING_KNOWN,
  type Buckets,
  type Form,
} from './alike';
import { keptForm, seeFromKey, seeFroms, type Heading } from './heading';
import { vocabularyOfAuthority } from './vocabulary';

/** A heading with its number. */
export interface NumberedHeading {
  readonly id: number;
  readonly heading: Heading;
}

/** Two headings that may be one; `a` is the lower number. A score of 1: they are the same; less: perhaps. */
export interface LookAlike {
  readonly a: number;
  readonly b: number;
  readonly score: number;
  readonly why: string;
}
/** The score of two that are the same, and of two that may be. */
export const SAME = 1;
const PERHAPS = 0.5;

/** A heading as it is compared: small, so that many can be at hand. */
export interface ComparedHeading {
  readonly id: number;
  readonly form: Omit<Form, 'text'>;
  /** Keys of its see-froms. */
  readonly seeFroms: readonly string[];
}

/** Whether a heading is compared at all: one that was merged away is not. */
export const isCompared = (heading: Heading): boolean => heading.mergedInto === null;

/** A heading as it is compared; null for one that is not. */
export function comparedHeading({ id, heading }: NumberedHeading): ComparedHeading | null {
  const form = isCompared(heading)
    ? comparedForm(keptForm(heading), vocabularyOfAuthority(heading.marc))
    : null;
  return form && { id, form, seeFroms: seeFroms(heading).map(seeFromKey) };
}

/** The buckets in which a heading is compared with others. Its see-froms lead to it too. */
export const alikeBuckets = ({ form, seeFroms }: ComparedHeading): Buckets =>
  bucketsOf(
    form,
    [form.key, ...seeFroms].map((key) => `${key} key`),
  );

/** Pairs of headings that look alike. `different` are pairs that a person has said are two. */
export const lookAlikes = (
  headings: readonly NumberedHeading[],
  different: (a: number, b: number) => boolean,
): LookAlike[] =>
  alikePairs(headings.flatMap((h) => comparedHeading(h) ?? [])).filter((p) => !different(p.a, p.b));

/**
 * Pairs of headings that look alike, the surest first. What records say of them, and whether others have the same name, is not known here: a form without dates is
 * *perhaps* the one that has some.
 */
export function alikePairs(headings: readonly ComparedHeading[]): LookAlike[] {
  const found: LookAlike[] = [];
  for (const [at, earlier] of candidates(eachOf(headings, alikeBuckets)))
    found.push(
      ...alikeAmong(
        headings[at]!,
        earlier.map((e) => headings[e]!),
      ),
    );
  return found.sort(bySureness);
}

/** Of some headings those that look like another one, as pairs, the surest first. */
export const alikeAmong = (one: ComparedHeading, others: readonly ComparedHeading[]): LookAlike[] =>
  others.flatMap((other) => alikePair(one, other) ?? []).sort(bySureness);

function alikePair(one: ComparedHeading, other: ComparedHeading): LookAlike | null {
  if (one.id === other.id) return null;
  const [a, b] = one.id < other.id ? [one, other] : [other, one];
  const isSeeFrom = a.seeFroms.includes(b.form.key) || b.seeFroms.includes(a.form.key);
  const { verdict, evidence } = compareForms(a.form, b.form, {
    ...NOTHING_KNOWN,
    isOnly: false,
    isSeeFrom,
  });
  if (verdict === 'different') return null;
  return {
    ...{ a: a.id, b: b.id, score: verdict === 'same' ? SAME : PERHAPS },
    why: evidence.join('; '),
  };
}

const bySureness = (x: LookAlike, y: LookAlike) => y.score - x.score || x.a - y.a || x.b - y.b;

/** Headings that may all be one: each of them makes a pair with every other. */
export interface AlikeGroup {
  readonly headings: readonly number[];
  readonly pairs: readonly LookAlike[];
  /** That of its surest pair. */
  readonly score: number;
}

const nameOf = (a: number, b: number) => (a < b ? `${a} ${b}` : `${b} ${a}`);

/**
 * Look-alikes in groups: those that are the same together, as long as each makes a pair with every other; every pair that is in none of these is a
 * group of two. What a group is depends on the same-pairs that hang together, and on nothing else.
 */
export function lookAlikeGroups(pairs: readonly LookAlike[]): AlikeGroup[] {
  const sorted = pairs.toSorted(bySureness);
  const known = new Set(sorted.map((p) => nameOf(p.a, p.b)));
  const groupOf = new Map<number, number[]>();
  for (const { a, b, score } of sorted) {
    if (score < SAME) continue;
    const [g, h] = [groupOf.get(a) ?? [a], groupOf.get(b) ?? [b]];
    if (g === h || !g.every((x) => h.every((y) => known.has(nameOf(x, y))))) continue;
    const both = [...g, ...h].sort((x, y) => x - y);
    for (const id of both) groupOf.set(id, both);
  }
  const groups = new Map<string, LookAlike[]>();
  const members = new Map<string, readonly number[]>();
  for (const pair of sorted) {
    const group = groupOf.get(pair.a);
    const headings = group?.includes(pair.b) ? group : [pair.a, pair.b];
    const name = headings.join(' ');
    members.set(name, headings);
    groups.set(name, [...(groups.get(name) ?? []), pair]);
  }
  return [...groups].map(([name, own]) => ({
    headings: members.get(name)!,
    pairs: own,
    score: own[0]!.score,
  }));
}
