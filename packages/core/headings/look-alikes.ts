import { keptForm, keyOfHeading, type Heading } from './heading';
import { likeness, readPersonalName, type PersonalName } from './personal-name';

export interface NumberedHeading {
  readonly id: number;
  readonly heading: Heading;
}

/** Two headings that may be one person. */
export interface LookAlike {
  readonly a: number;
  readonly b: number;
  readonly score: number;
  readonly why: string;
}

/**
 * Pairs of personal headings that look alike. Only names that share a bucket are compared (surname with first initial,
 * or surname short of one letter with first initial), so the time grows with the headings, not with their square.
 * `different` are pairs that a person has said are two people.
 */
export function lookAlikes(
  headings: readonly NumberedHeading[],
  different: (a: number, b: number) => boolean,
): LookAlike[] {
  const names = new Map<number, PersonalName>();
  const keys = new Map<number, string>();
  const buckets = new Map<string, number[]>();
  for (const { id, heading } of headings) {
    if (heading.kind !== 'personal' || heading.mergedInto !== null) continue;
    const name = readPersonalName(keptForm(heading));
    names.set(id, name);
    keys.set(id, keyOfHeading(heading));
    for (const bucket of bucketsOf(name)) {
      const ids = buckets.get(bucket);
      if (ids) ids.push(id);
      else buckets.set(bucket, [id]);
    }
  }
  const seen = new Set<string>();
  const found: LookAlike[] = [];
  for (const ids of buckets.values())
    for (let i = 0; i < ids.length; i++)
      for (let j = i + 1; j < ids.length; j++) {
        const [a, b] = ids[i]! < ids[j]! ? [ids[i]!, ids[j]!] : [ids[j]!, ids[i]!];
        const pair = `${a} ${b}`;
        if (a === b || seen.has(pair)) continue;
        seen.add(pair);
        if (different(a, b)) continue;
        const like =
          keys.get(a) === keys.get(b)
            ? { score: 1, why: 'Same normal form' }
            : likeness(names.get(a)!, names.get(b)!);
        if (like) found.push({ a, b, ...like });
      }
  return found.sort((x, y) => y.score - x.score || x.a - y.a || x.b - y.b);
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

/** Look-alikes joined to groups: every heading that is linked to another by any pair. */
export function lookAlikeGroups(
  pairs: readonly LookAlike[],
): { headings: number[]; pairs: LookAlike[]; score: number }[] {
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
