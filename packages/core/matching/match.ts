import type { Description, QualifiedIsbn } from './description';
import { likenessAbove, textLikeness, titleLikeness } from './likeness';
import { LIKE, POSSIBLE, SURE, type MatchRule, type PointKind } from './rule';

/** Why a record is thought to be the same as another. */
export interface Match {
  readonly record: number;
  /** Sum of the weights of what they share. */
  readonly strength: number;
  /** Strong enough, and nothing speaks against it. */
  readonly sure: boolean;
  /** What they share, in the order of the rule: "ISBN 9780306406157". */
  readonly points: readonly { readonly by: PointKind; readonly said: string }[];
  /** What speaks against it, as sentences. */
  readonly doubts: readonly string[];
  readonly likeness: number;
}

/** A control number without its organisation says little: every supplier counts from 1. */
const BARE = 40;

/** Weighs two records by a rule; null when they share too little to be worth a look. */
export function weigh(
  incoming: Description,
  held: Description,
  record: number,
  rule: MatchRule,
): Match | null {
  const numbers = rule.points.some((p) => p.by !== 'likeness' && sharedBy(p.by, incoming, held, 0));
  // Most records that only look alike differ in something that is quickly seen.
  if (!numbers && plainDoubts(incoming, held, rule).length > 0) return null;
  const alike = likenessAbove(incoming, held, numbers ? 0 : LIKE);
  if (!alike) return null;
  const points: { by: PointKind; said: string }[] = [];
  let strength = 0;
  let alone = false;
  for (const point of rule.points) {
    const shared = sharedBy(point.by, incoming, held, alike.score);
    if (!shared) continue;
    const bare = point.by === 'control' && shared.key.startsWith(':');
    const weight = bare ? Math.min(BARE, point.weight) : point.weight;
    points.push({ by: point.by, said: shared.said });
    strength += point.by === 'likeness' ? Math.round((weight * alike.score) / 100) : weight;
    if (point.alone && !bare && (point.by !== 'likeness' || alike.score >= 92)) alone = true;
  }
  if (points.length === 0) return null;
  const doubts = [...plainDoubts(incoming, held, rule), ...titleDoubt(incoming, held, points, rule)];
  const total = alone ? Math.max(strength, SURE) : strength;
  if (total < POSSIBLE || (points.every((p) => p.by === 'likeness') && doubts.length > 0)) return null;
  // A bare control number under another title is chance.
  if (doubts.length && points.every((p) => p.by === 'control' && !p.said.includes('('))) return null;
  return {
    record,
    strength: total,
    sure: total >= SURE && doubts.length === 0,
    points,
    doubts,
    likeness: alike.score,
  };
}

/** The matches of a record among candidates by a rule, surest first. */
export function findMatches(
  incoming: Description,
  candidates: readonly { readonly record: number; readonly description: Description }[],
  rule: MatchRule,
): Match[] {
  const found: Match[] = [];
  const seen = new Set<number>();
  for (const { record, description } of candidates) {
    if (seen.has(record)) continue;
    seen.add(record);
    const match = weigh(incoming, description, record, rule);
    if (match) found.push(match);
  }
  return found
    .sort(
      (a, b) =>
        Number(b.sure) - Number(a.sure) ||
        a.doubts.length - b.doubts.length ||
        b.strength - a.strength ||
        b.likeness - a.likeness ||
        a.record - b.record,
    )
    .slice(0, MOST);
}
/** More candidates than this are not looked at by anybody. */
const MOST = 12;

function sharedBy(
  by: PointKind,
  a: Description,
  b: Description,
  score: number,
): { key: string; said: string } | null {
  const common = (x: readonly string[], y: readonly string[], name: (key: string) => string) => {
    const key = x.find((k) => y.includes(k));
    return key === undefined ? null : { key, said: name(key) };
  };
  switch (by) {
    case 'isbn':
      return common(
        a.isbns.map((i) => i.isbn),
        b.isbns.map((i) => i.isbn),
        (k) => `ISBN ${k}`,
      );
    case 'issn':
      return common(a.issns, b.issns, (k) => `ISSN ${k.slice(0, 4)}-${k.slice(4)}`);
    case 'lccn':
      return common(a.lccns, b.lccns, (k) => `LCCN ${k}`);
    case 'control':
      return common(a.control, b.control, (k) =>
        k.startsWith(':') ? `control number ${k.slice(1)}` : `control number (${k.replace(':', ')')}`,
      );
    case 'number':
      return common(a.numbers, b.numbers, (k) => `number ${k.replace(/^[^:]*:/, '')}`);
    case 'likeness':
      return score >= LIKE ? { key: '', said: `description ${score} % alike` } : null;
  }
}

/** What the guards of the rule have against it, but for the title. */
function plainDoubts(a: Description, b: Description, { guards }: MatchRule): string[] {
  const doubts: string[] = [];
  if (guards.format && a.carrier !== b.carrier)
    doubts.push(`One is ${article(a.carrier)}, the other ${article(b.carrier)}.`);
  if (guards.part) {
    const shared = sharedIsbns(a, b);
    const onlySet = shared.length > 0 && shared.every(([x, y]) => x.set || y.set);
    if (a.part !== b.part && !(a.part && b.part && textLikeness(a.part, b.part) > 0.85))
      doubts.push(
        a.part && b.part
          ? `One is part ${a.part}, the other part ${b.part}.`
          : `One is part ${a.part || b.part}, the other names no part.`,
      );
    else if (onlySet && a.part === '' && wholeSet(a) !== wholeSet(b))
      doubts.push('The ISBN they share is that of the set; only one of them describes the set.');
    else if (shared.length > 0 && shared.every(([x, y]) => x.part !== y.part && x.part && y.part))
      doubts.push('The ISBN they share belongs to different parts.');
  }
  if (guards.edition && a.edition !== b.edition && /^\d+$/.test(a.edition + b.edition))
    doubts.push(
      a.edition && b.edition
        ? `One is edition ${a.edition}, the other edition ${b.edition}.`
        : `One is edition ${a.edition || b.edition}, the other names none.`,
    );
  if (guards.years !== null && a.year !== null && b.year !== null && Math.abs(a.year - b.year) > guards.years)
    doubts.push(`One is of ${a.year}, the other of ${b.year}.`);
  return doubts;
}

function titleDoubt(
  a: Description,
  b: Description,
  points: readonly { readonly by: PointKind }[],
  { guards }: MatchRule,
): string[] {
  if (!guards.title || titlesAgree(a, b)) return [];
  const by = points.find((p) => p.by !== 'likeness')?.by;
  return [`${by ? `The ${SHORT[by]} is the same` : 'Much is the same'}, the title is not: “${b.shown}”.`];
}

const sharedIsbns = (a: Description, b: Description): [QualifiedIsbn, QualifiedIsbn][] =>
  a.isbns.flatMap((x) =>
    b.isbns.filter((y) => y.isbn === x.isbn).map((y): [QualifiedIsbn, QualifiedIsbn] => [x, y]),
  );
/** A record with a set's number and no number of a part describes the set. */
const wholeSet = (d: Description) => d.isbns.some((i) => i.set) && !d.isbns.some((i) => i.part !== '');

/** Whether two titles can be one: one begins the other, or few letters or words differ. */
export function titlesAgree(a: Description, b: Description): boolean {
  const [x, y] = [a.title, b.title].sort((p, q) => p.length - q.length) as [string, string];
  if (x === '' || y.startsWith(`${x} `) || x === y) return true;
  return titleLikeness(a, b) >= 0.72;
}

const article = (name: string) => (/^[aeiou]/.test(name) ? `an ${name}` : `a ${name}`);
const SHORT: Record<PointKind, string> = {
  control: 'control number',
  lccn: 'LCCN',
  isbn: 'ISBN',
  issn: 'ISSN',
  number: 'number',
  likeness: 'description',
};
