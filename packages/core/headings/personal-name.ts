import type { DataField } from '../marc';
import { first, values } from '../marc';
import { editDistance, fold } from '../text';

/** A personal name in the parts that are compared. */
export interface PersonalName {
  readonly surname: string;
  readonly forenames: readonly string[];
  readonly born: number | null;
  readonly died: number | null;
  /** Words such as "Jr." or titles ($b, $c), folded. */
  readonly words: string;
}

/** Reads a personal name (X00) into the parts that are compared. */
export function readPersonalName(f: DataField): PersonalName {
  const [surname = '', given = ''] = splitOnce(first(f, 'a') ?? '', ',');
  const years = /(?:(\d{4})\??)?\s*-\s*(?:(\d{4})\??)?|b(?:orn|\.)\s*(\d{4})|d(?:ied|\.)\s*(\d{4})/i.exec(
    first(f, 'd') ?? '',
  );
  const number = (text: string | undefined) => (text ? Number(text) : null);
  return {
    surname: fold(surname),
    forenames: fold(given.replace(/(\p{L})\./gu, '$1 '))
      .split(' ')
      .filter(Boolean),
    born: number(years?.[1] ?? years?.[3]),
    died: number(years?.[2] ?? years?.[4]),
    words: fold(values(f, 'bc').join(' ')),
  };
}

function splitOnce(text: string, by: string): string[] {
  const at = text.indexOf(by);
  return at < 0 ? [text] : [text.slice(0, at), text.slice(at + 1)];
}

/** Why two names may be one person's, best first; null when they are not thought to be. */
export type NameLikeness = { readonly score: number; readonly why: string } | null;

/** Compares two names that share surname (or nearly) and first initial. */
export function nameLikeness(a: PersonalName, b: PersonalName): NameLikeness {
  const conflict = (x: number | null, y: number | null) => x !== null && y !== null && x !== y;
  if (conflict(a.born, b.born) || conflict(a.died, b.died) || a.words !== b.words) return null;
  if (
    (a.born !== null && b.died !== null && a.born > b.died) ||
    (b.born !== null && a.died !== null && b.born > a.died)
  )
    return null;
  const sameDate = (a.born !== null && a.born === b.born) || (a.died !== null && a.died === b.died);
  const surnames = a.surname === b.surname ? 0 : editDistance(a.surname, b.surname, 1);
  if (surnames > 1 || (surnames === 1 && Math.min(a.surname.length, b.surname.length) < 5)) return null;
  const forenames = forenamesAgree(a.forenames, b.forenames);
  if (!forenames) return null;
  const reasons = [
    surnames === 0 ? null : 'surnames differ by one letter',
    forenames.why,
    sameDate
      ? 'same dates'
      : a.born === null && a.died === null && b.born === null && b.died === null
        ? 'no dates'
        : 'dates on one only',
  ].filter(Boolean);
  const score = forenames.score + (surnames === 0 ? 0.2 : -0.2) + (sameDate ? 0.3 : 0);
  return score < 0.5 ? null : { score: Math.min(1, score), why: capital(reasons.join('; ')) };
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function forenamesAgree(a: readonly string[], b: readonly string[]): { score: number; why: string } | null {
  const [short, long] = a.length <= b.length ? [a, b] : [b, a];
  if (short.length === 0) return long.length === 0 ? { score: 0.8, why: 'same name' } : null;
  let score = 0.8;
  let why = 'same forenames';
  for (let i = 0; i < short.length; i++) {
    const [x, y] = [short[i]!, long[i]!];
    if (x === y) continue;
    const [s, l] = x.length <= y.length ? [x, y] : [y, x];
    if (s.length === 1 && l.startsWith(s)) {
      score = Math.min(score, 0.6);
      why = 'initial against full forename';
    } else if (s.length >= 4 && editDistance(s, l, 1) === 1) {
      score = Math.min(score, 0.6);
      why = 'forenames differ by one letter';
    } else if (s.length >= 3 && l.startsWith(s)) {
      score = Math.min(score, 0.55);
      why = 'short against long forename';
    } else return null;
  }
  if (short.length < long.length) {
    score -= 0.1;
    why += ', one has more';
  }
  return { score, why };
}
