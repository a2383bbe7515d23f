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

/** A name as it is compared: small, so that many can be at hand. */
export interface ComparedName {
  readonly id: number;
  readonly name: PersonalName;
  /** The normal form of the heading. */
  readonly key: string;
}

/** A heading as it is compared; null for one that is not: only personal names that were not merged away are. */
export const comparedName = ({ id, heading }: NumberedHeading): ComparedName | null =>
  isCompared(heading) ? { id, name: readPersonalName(keptForm(heading)), key: keyOfHeading(heading) } : null;

/** Whether a heading is compared at all. */
export const isCompared = (heading: Heading): boolean =>
  heading.kind === 'personal' && heading.mergedInto === null;

/**
 * The buckets under which a name is compared with others; two names that share none are not alike. Surname and first initial;
 * and, for longer surnames, the surname with each one letter left out.
 */
export function alikeBuckets({ name }: ComparedName): string[] {
  const initial = name.forenames[0]?.[0] ?? '';
  const found = new Set([`${name.surname} ${initial}`]);
  if (name.surname.length >= 5)
    for (let i = 0; i < name.surname.length; i++)
      found.add(`${name.surname.slice(0, i)}${name.surname.slice(i + 1)} ${initial}`);
  return [...found];
}

/**
 * Pairs of personal headings that look alike. Only names that share a bucket are compared, so the time grows with the headings,
 * not with their square. `different` are pairs that a person has said are two people.
 */
export const lookAlikes = (
  headings: readonly NumberedHeading[],
  different: (a: number, b: number) => boolean,
): LookAlike[] =>
  alikeNames(headings.flatMap((h) => comparedName(h) ?? [])).filter((p) => !different(p.a, p.b));

/** Pairs of names that look alike, the surest first; with `touched`, only pairs with one of those are given. */
export function alikeNames(
  names: readonly ComparedName[],
  touched: ReadonlySet<number> | null = null,
): LookAlike[] {
  const byBucket = new Map<string, ComparedName[]>();
  for (const name of names)
    for (const bucket of alikeBuckets(name)) {
      const there = byBucket.get(bucket);
      if (there) there.push(name);
      else byBucket.set(bucket, [name]);
    }
  const seen = new Set<string>();
  const found: LookAlike[] = [];
  for (const there of byBucket.values())
    for (const [first, second] of pairsOf(there, touched)) {
      const [a, b] = first.id < second.id ? [first, second] : [second, first];
      const pair = `${a.id} ${b.id}`;
      if (a.id === b.id || seen.has(pair)) continue;
      seen.add(pair);
      const like = a.key === b.key ? { score: 1, why: 'Same normal form' } : nameLikeness(a.name, b.name);
      if (like) found.push({ a: a.id, b: b.id, ...like });
    }
  return found.sort((x, y) => y.score - x.score || x.a - y.a || x.b - y.b);
}

/** All pairs of a bucket, or those with one that was touched. */
function* pairsOf(
  there: readonly ComparedName[],
  touched: ReadonlySet<number> | null,
): Generator<readonly [ComparedName, ComparedName]> {
  for (let i = 0; i < there.length; i++) {
    const one = there[i]!;
    if (touched && !touched.has(one.id)) continue;
    // Of a touched one all others are looked at, those before it too.
    for (let j = touched ? 0 : i + 1; j < there.length; j++) if (j !== i) yield [one, there[j]!];
  }
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
