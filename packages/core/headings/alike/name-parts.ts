import { editDistance } from '../../text';
import { PARTICLES, type NamedPerson } from './person';

/** The sounds of a name as different transliterations write them, roughly. */
export const sounded = (text: string): string =>
  text
    .replace(/tsch|tch|tsh|cz|č/g, 'ch')
    .replace(/sch|sz/g, 'sh')
    .replace(/zh|rz/g, 'z')
    .replace(/kh/g, 'h')
    .replace(/ph|w|ff/g, (m) => (m === 'w' ? 'v' : 'f'))
    .replace(/ts|tz/g, 'c')
    .replace(/ks/g, 'x')
    .replace(/(?:off|ow|ov|ev|eff|ew)$/g, 'v')
    // Pyotr and Petr, Feodor and Fyodor.
    .replace(/(?<=[^aeiou])[eijy]o(?=[^aeiou])/g, 'e')
    .replace(/i[iy]|[yj]/g, 'i')
    .replace(/iu|io|ia/g, (m) => m[1]!)
    .replace(/(.)\1/g, '$1')
    .replace(/[ieh']/g, '')
    .replace(/(?<=.)[aou]+$/, '');

/** Familiar forms of forenames (common practice, no source). */
const FAMILIAR: ReadonlyMap<string, string> = new Map(
  Object.entries({
    andrew: 'andy drew',
    anthony: 'tony',
    catherine: 'cathy kate katie kitty',
    charles: 'charlie chuck',
    christopher: 'chris kit',
    edward: 'eddie ned ted teddy',
    elizabeth: 'bess bessie beth betsy betty eliza libby liz lizzie',
    frederick: 'freddie freddy',
    henry: 'hal hank harry',
    james: 'jamie jim jimmy',
    john: 'jack johnny',
    joseph: 'joe joey',
    margaret: 'maggie meg peg peggy',
    mary: 'molly polly',
    michael: 'mick mickey mike',
    nicholas: 'nick',
    richard: 'dick rick',
    robert: 'bob bobby rob robbie',
    samuel: 'sammy',
    thomas: 'tom tommy',
    timothy: 'timmy',
    william: 'bill billy will willie',
  }).flatMap(([full, forms]) => forms.split(' ').map((form) => [form, full] as const)),
);
const fullForename = (name: string): string => FAMILIAR.get(name) ?? name;

/** How the forenames of two names go together. */
export interface GivenCompared {
  readonly fit: 'equal' | 'initials' | 'more' | 'letter' | 'sound' | null;
  readonly evidence: readonly string[];
}

/** Compares forenames, initials and abbreviations one by one. */
export function compareGiven(a: readonly string[], b: readonly string[]): GivenCompared {
  const [short, long] = a.length <= b.length ? [a, b] : [b, a];
  if (short.length === 0)
    return long.length === 0 ? { fit: 'equal', evidence: ['no forenames'] } : { fit: null, evidence: [] };
  if (a.join('') === b.join('')) return { fit: 'equal', evidence: ['the forenames are the same'] };
  const evidence: string[] = [];
  let [initials, letter, sound, familiar] = [0, 0, 0, 0];
  for (let i = 0; i < short.length; i++) {
    const [x, y] = [short[i]!, long[i]!];
    if (x === y) continue;
    const [s, l] = x.length <= y.length ? [x, y] : [y, x];
    if (s.length === 1 && l.startsWith(s)) initials++;
    else if (s.length >= 4 && editDistance(s, l, 1) === 1) letter++;
    else if (s.length >= 3 && sounded(s) === sounded(l) && s[0] === l[0]) sound++;
    else if (fullForename(s) === fullForename(l)) familiar++;
    else return { fit: null, evidence: ['the forenames differ'] };
  }
  if (initials) evidence.push(initials === 1 ? 'the initial fits' : 'the initials fit');
  if (letter) evidence.push('a forename differs by one letter');
  if (sound) evidence.push('a forename may be another transliteration');
  if (familiar) evidence.push('a forename is a familiar form of the other');
  const hasMore = short.length < long.length;
  if (hasMore) evidence.push(`one has ${long.length - short.length === 1 ? 'a forename' : 'forenames'} more`);
  const fit = letter
    ? 'letter'
    : sound || familiar
      ? 'sound'
      : initials
        ? 'initials'
        : hasMore
          ? 'more'
          : 'equal';
  return { fit, evidence };
}

/** A surname in one of the spellings that it may have. */
export const spelled = (core: string): string =>
  core
    .replace(/^ma?c(?=[a-z]{3})/, 'mac')
    .replace(/^(?:saint|st)(?=[a-z]{3})/, 'saint')
    .replace(/([aou])e/g, '$1');

/** How two surnames go together; null where they do not. */
export type SurnameFit = 'equal' | 'particle' | 'spelling' | 'letter' | 'sound' | 'part' | null;

/** Compares two surnames. */
export function compareSurnames(a: NamedPerson, b: NamedPerson): SurnameFit {
  if (a.surname.replaceAll(' ', '') === b.surname.replaceAll(' ', '')) return 'equal';
  if (a.core === b.core && a.core.length > 2) return 'particle';
  // Müller and Mueller, McAdam and MacAdam, St. Clair and Saint Clair.
  if (spelled(a.core) === spelled(b.core)) return 'spelling';
  const [short, long] = a.core.length <= b.core.length ? [a.core, b.core] : [b.core, a.core];
  if (short.length >= 5 && editDistance(short, long, 1) === 1) return 'letter';
  if (short.length >= 4 && sounded(short) === sounded(long)) return 'sound';
  const [fewer, more] = a.surname.length <= b.surname.length ? [a, b] : [b, a];
  const words = more.surname.split(' ').filter((t) => !PARTICLES.has(t));
  return words.length > 1 && fewer.core.length > 3 && (words[0] === fewer.core || words.at(-1) === fewer.core)
    ? 'part'
    : null;
}
