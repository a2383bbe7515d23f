import { bucketsOf, compareForms, formIn, NOTHING_KNOWN, type Form } from './alike';
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
  const form = isCompared(heading) ? formIn(keptForm(heading), vocabularyOfAuthority(heading.marc)) : null;
  if (!form) return null;
  const { text: _, ...rest } = form;
  return { id, form: rest, seeFroms: seeFroms(heading).map(seeFromKey) };
}

/** The buckets under which a heading is compared with others; two that share none are not alike. Its see-froms lead to it too. */
export const alikeBuckets = ({ form, seeFroms }: ComparedHeading): string[] => [
  ...new Set([
    ...bucketsOf(form),
    ...[form.key, ...seeFroms].map((key) => `${form.type} ${form.vocabulary} key ${key}`),
  ]),
];

/** Pairs of headings that look alike. `different` are pairs that a person has said are two. */
export const lookAlikes = (
  headings: readonly NumberedHeading[],
  different: (a: number, b: number) => boolean,
): LookAlike[] =>
  alikePairs(headings.flatMap((h) => comparedHeading(h) ?? [])).filter((p) => !different(p.a, p.b));

/**
 * Pairs of headings that look alike, the surest first; with `touched`, only pairs with one of those are given. What records say of them, and
 * whether others have the same name, is not known here: a form without dates is *perhaps* the one that has some.
 */
export function alikePairs(
  headings: readonly ComparedHeading[],
  touched: ReadonlySet<number> | null = null,
): LookAlike[] {
  const byBucket = new Map<string, ComparedHeading[]>();
  for (const heading of headings)
    for (const bucket of alikeBuckets(heading)) {
      const there = byBucket.get(bucket);
      if (there) there.push(heading);
      else byBucket.set(bucket, [heading]);
    }
  const seen = new Set<string>();
  const found: LookAlike[] = [];
  for (const there of byBucket.values())
    for (const [first, second] of pairsOf(there, touched)) {
      const [a, b] = first.id < second.id ? [first, second] : [second, first];
      const pair = `${a.id} ${b.id}`;
      if (a.id === b.id || seen.has(pair)) continue;
      seen.add(pair);
      const isSeeFrom = a.seeFroms.includes(b.form.key) || b.seeFroms.includes(a.form.key);
      const { verdict, evidence } = compareForms(a.form, b.form, {
        ...NOTHING_KNOWN,
        isOnly: false,
        isSeeFrom,
      });
      if (verdict === 'different') continue;
      found.push({
        ...{ a: a.id, b: b.id, score: verdict === 'same' ? SAME : PERHAPS },
        why: evidence.join('; '),
      });
    }
  return found.sort(bySureness);
}

const bySureness = (x: LookAlike, y: LookAlike) => y.score - x.score || x.a - y.a || x.b - y.b;

/** All pairs of a bucket, or those with one that was touched. */
function* pairsOf(
  there: readonly ComparedHeading[],
  touched: ReadonlySet<number> | null,
): Generator<readonly [ComparedHeading, ComparedHeading]> {
  for (let i = 0; i < there.length; i++) {
    const one = there[i]!;
    if (touched && !touched.has(one.id)) continue;
    // Of a touched one all others are looked at, those before it too.
    for (let j = touched ? 0 : i + 1; j < there.length; j++) if (j !== i) yield [one, there[j]!];
  }
}

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
