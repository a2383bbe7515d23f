import { keptForm, keyOfHeading, type Heading } from './heading';
import { nameLikeness, readPersonalName, type PersonalName } from './personal-name';

/** A heading with its number. */
export interface NumberedHeading {
  readonly id: number;
  readonly heading: Heading;
}

/** Two headings that may be one person; `a` is the lower number. */
export interface LookAlike {
  readonly a: number;
  readonly b: number;
  readonly score: number;
  readonly why: string;
}

/** A name as it is compared, with the buckets that it shares with those like it. */
interface Compared {
  readonly id: number;
  readonly name: PersonalName;
  readonly key: string;
  readonly buckets: readonly string[];
}

/** Whether a heading is compared at all: personal names that were not merged away are. */
export const isCompared = (heading: Heading): boolean =>
  heading.kind === 'personal' && heading.mergedInto === null;

/** The buckets under which a heading is compared with others: two that share none are not alike. */
export const alikeBuckets = (heading: Heading): string[] =>
  isCompared(heading) ? bucketsOf(readPersonalName(keptForm(heading))) : [];

/**
 * Pairs of personal headings that look alike. Only names that share a bucket are compared (surname with first initial,
 * or surname short of one letter with first initial), so the time grows with the headings, not with their square.
 * `different` are pairs that a person has said are two people; with `touched`, only pairs with one of those are given.
 */
export function lookAlikes(
  headings: readonly NumberedHeading[],
  different: (a: number, b: number) => boolean,
  touched: ReadonlySet<number> | null = null,
): LookAlike[] {
  const byBucket = new Map<string, Compared[]>();
  for (const { id, heading } of headings) {
    if (!isCompared(heading)) continue;
    const name = readPersonalName(keptForm(heading));
    const compared = { id, name, key: keyOfHeading(heading), buckets: bucketsOf(name) };
    for (const bucket of compared.buckets) {
      const there = byBucket.get(bucket);
      if (there) there.push(compared);
      else byBucket.set(bucket, [compared]);
    }
  }
  const seen = new Set<string>();
  const found: LookAlike[] = [];
  for (const there of byBucket.values())
    for (const [first, second] of pairsOf(there, touched)) {
      const [a, b] = first.id < second.id ? [first, second] : [second, first];
      const pair = `${a.id} ${b.id}`;
      if (a.id === b.id || seen.has(pair)) continue;
      seen.add(pair);
      if (different(a.id, b.id)) continue;
      const like = a.key === b.key ? { score: 1, why: 'Same normal form' } : nameLikeness(a.name, b.name);
      if (like) found.push({ a: a.id, b: b.id, ...like });
    }
  return found.sort((x, y) => y.score - x.score || x.a - y.a || x.b - y.b);
}

/** All pairs of a bucket, or those with one that was touched. */
function* pairsOf(
  there: readonly Compared[],
  touched: ReadonlySet<number> | null,
): Generator<readonly [Compared, Compared]> {
  for (let i = 0; i < there.length; i++) {
    const one = there[i]!;
    if (touched && !touched.has(one.id)) continue;
    // Of a touched one all others are looked at, those before it too.
    for (let j = touched ? 0 : i + 1; j < there.length; j++) if (j !== i) yield [one, there[j]!];
  }
}

/** Surname and first initial; and, for longer surnames, the surname with each one letter left out. */
function bucketsOf(name: PersonalName): string[] {
  const initial = name.forenames[0]?.[0] ?? '';
  const found = new Set([`${name.surname} ${initial}`]);
  if (name.surname.length >= 5)
    for (let i = 0; i < name.surname.length; i++)
      found.add(`${name.surname.slice(0, i)}${name.surname.slice(i + 1)} ${initial}`);
  return [...found];
}

/** Headings that are linked to each other by pairs. */
export interface AlikeGroup {
  readonly headings: readonly number[];
  readonly pairs: readonly LookAlike[];
  /** That of its surest pair. */
  readonly score: number;
}

/** Look-alikes joined to groups: every heading that is linked to another by any pair. */
export function lookAlikeGroups(pairs: readonly LookAlike[]): AlikeGroup[] {
  const leader = new Map<number, number>();
  const find = (id: number): number => {
    let at = id;
    while ((leader.get(at) ?? at) !== at) at = leader.get(at)!;
    leader.set(id, at);
    return at;
  };
  for (const { a, b } of pairs) leader.set(find(a), find(b));
  const groups = new Map<number, { headings: Set<number>; pairs: LookAlike[]; score: number }>();
  for (const pair of pairs) {
    const root = find(pair.a);
    const group = groups.get(root) ?? { headings: new Set<number>(), pairs: [], score: 0 };
    group.headings.add(pair.a).add(pair.b);
    group.pairs.push(pair);
    group.score = Math.max(group.score, pair.score);
    groups.set(root, group);
  }
  return [...groups.values()].map((g) => ({ ...g, headings: [...g.headings].sort((x, y) => x - y) }));
}
