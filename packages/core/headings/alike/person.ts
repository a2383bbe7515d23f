import { first, values, type DataField } from '../../marc';
import { fold, foldedWords, romanNumber } from '../../text';
import { readLifeDates, type LifeDates } from './life-dates';

/** A personal name in the parts that are compared; everything folded. */
export interface NamedPerson {
  /** '' for a name in direct order, which then stands in `given` whole. */
  readonly surname: string;
  /** Surname without particles, and the particles by themselves. */
  readonly core: string;
  readonly particles: string;
  /** Forenames and initials, with their fuller forms from $q. */
  readonly given: readonly string[];
  /** Jr., Sr., II, III: which of that name. */
  readonly suffix: string;
  /** A family, a clan, a dynasty: nobody by himself. */
  readonly isFamily: boolean;
  /** Numeration ($b). */
  readonly number: string;
  /** Titles and other words ($c). */
  readonly words: readonly string[];
  /** What $c has in brackets ("Chemist"): it is there because there is another of that name. */
  readonly qualifiers: readonly string[];
  readonly dates: LifeDates | null;
}

/** Words before a surname that are not filed by themselves. */
export const PARTICLES = new Set(
  'a af al ap at av ben da das dal dalla de dei del della den der des di do dos du el en ibn in la las le les lo los mac ten ter the tot und van vande vander vom von y ze zu zum zur'.split(
    ' ',
  ),
);
/** Words that belong to a place of somebody in a family. */
const SUFFIXES: ReadonlyMap<string, string> = new Map(
  Object.entries({
    jr: 'jr',
    junior: 'jr',
    fils: 'jr',
    ii: 'ii',
    '2nd': 'ii',
    sr: 'sr',
    senior: 'sr',
    pere: 'sr',
    iii: 'iii',
    '3rd': 'iii',
    iv: 'iv',
  }),
);
/** Words of address that old headings have among the names; those that are forenames as well (King, Dean) stay names. */
const ADDRESS = new Set(
  'brother capt captain dame dr father lady lord madame mademoiselle miss mme mother mr mrs ms prof rev sir sister'.split(
    ' ',
  ),
);
/** Abbreviations of forenames that stand in old headings (common practice, no source). */
const SHORT: ReadonlyMap<string, string> = new Map(
  Object.entries({
    alex: 'alexander',
    alf: 'alfred',
    and: 'andrew',
    ant: 'anthony',
    arth: 'arthur',
    aug: 'augustus',
    benj: 'benjamin',
    cath: 'catherine',
    chas: 'charles',
    chr: 'christopher',
    dan: 'daniel',
    danl: 'daniel',
    dav: 'david',
    ed: 'edward',
    edm: 'edmund',
    edw: 'edward',
    eliz: 'elizabeth',
    fred: 'frederick',
    fredk: 'frederick',
    geo: 'george',
    hen: 'henry',
    herb: 'herbert',
    jas: 'james',
    jno: 'john',
    jos: 'joseph',
    josh: 'joshua',
    margt: 'margaret',
    matt: 'matthew',
    mich: 'michael',
    nath: 'nathaniel',
    nathl: 'nathaniel',
    phil: 'philip',
    richd: 'richard',
    robt: 'robert',
    sam: 'samuel',
    saml: 'samuel',
    st: 'saint',
    theo: 'theodore',
    theoph: 'theophilus',
    thos: 'thomas',
    tim: 'timothy',
    wm: 'william',
    xtopher: 'christopher',
  }),
);

/** Initials written together ("J.R.R.") as words of their own. */
const tokens = (text: string): string[] =>
  text === ''
    ? []
    : fold(text.includes('.') ? text.replace(/(\p{L})\.(?=\S)/gu, '$1. ') : text)
        .split(' ')
        .filter(Boolean)
        .map((t) => SHORT.get(t) ?? t);

function splitSurname(surname: string): { core: string; particles: string } {
  const all = surname.split(' ').filter(Boolean);
  const core = all.filter((t) => !PARTICLES.has(t));
  if (core.length === 0) return { core: all.join(''), particles: '' };
  return { core: core.join(''), particles: all.filter((t) => PARTICLES.has(t)).join(' ') };
}

/** Forenames with the fuller forms that $q gives for the initials, where these fit one by one. */
function withFuller(given: readonly string[], fuller: readonly string[]): readonly string[] {
  if (fuller.length === 0) return given;
  const fits =
    given.length <= fuller.length &&
    given.every((g, i) => fuller[i]!.startsWith(g) || g.startsWith(fuller[i]!));
  return fits ? fuller.map((f, i) => (given[i] && given[i].length > f.length ? given[i] : f)) : given;
}

/** How many words of address stand before a name; a name in direct order keeps its last word. */
function addressBefore(names: readonly string[], isDirect: boolean): number {
  // "Brendan, St. John" has two forenames, "St. Brendan" one.
  const at = names.findIndex((w) => !ADDRESS.has(w) && !(isDirect && w === 'saint'));
  return at >= 0 ? at : isDirect ? Math.max(0, names.length - 1) : names.length;
}

/** The number of a king or pope, whichever figures it is written in. */
const numeration = (folded: string): string => String(romanNumber(folded) ?? folded);

/** A name in direct order with what stands behind it, in one order: "Osric of Wick" has the same as "Osric, of Wick". */
export const toldWords = ({ given, words }: NamedPerson): string[] =>
  [...given, ...words].filter((w) => !PARTICLES.has(w) && w !== 'of').sort();

/** Reads a personal name (X00, subfields a, b, c, d, j, q). */
export function readPerson(f: DataField): NamedPerson {
  const written = first(f, 'a') ?? '';
  const hasBrackets = written.includes('(');
  const inBrackets = hasBrackets ? (/\(([^)]*)\)/.exec(written)?.[1] ?? '') : '';
  const [sur = '', ...rest] = (hasBrackets ? written.replace(/\([^)]*\)/g, ' ') : written).split(',');
  const isDirect = rest.every((r) => r.trim() === '');
  // The first indicator says so; what kind of family it is, and where, stands in brackets.
  const isFamily = f.ind1 === '3';
  const fuller = isFamily ? '' : inBrackets;
  const q = tokens([...values(f, 'q'), fuller].join(' ').replace(/[()]/g, ' '));
  const cWords = [...(isFamily ? foldedWords(inBrackets) : []), ...values(f, 'c').flatMap(foldedWords)];
  const after = rest.flatMap((r) => tokens(r));
  const suffix = [...after, ...cWords].map((w) => SUFFIXES.get(w)).find((s) => s !== undefined) ?? '';
  const all = isDirect ? tokens(sur) : after.filter((w) => SUFFIXES.get(w) === undefined);
  if (isFamily && isDirect && all.length > 1 && all.at(-1) === 'family') cWords.unshift(all.pop()!);
  // "Sister Aveline", "Karrow, Sir Edmund": what $c says elsewhere.
  const address = all.slice(0, addressBefore(all, isDirect));
  const given = all.slice(address.length);
  // "Mare, Walter de la": particles behind the forenames belong to the surname.
  const trailing: string[] = [];
  while (!isDirect && given.length > 1 && PARTICLES.has(given.at(-1)!) && given.at(-1)!.length > 1)
    trailing.unshift(given.pop()!);
  const surname = isDirect ? '' : [...trailing, ...tokens(sur)].join(' ');
  return {
    surname,
    ...splitSurname(surname),
    given: withFuller(given, q),
    suffix,
    isFamily,
    number: numeration(fold(first(f, 'b') ?? '')),
    words: [...new Set([...address, ...cWords.filter((w) => SUFFIXES.get(w) === undefined)])],
    qualifiers: values(f, 'c').flatMap((c) => foldedWords(/\(([^)]*)\)?/.exec(c)?.[1] ?? '')),
    dates: readLifeDates(first(f, 'd') ?? ''),
  };
}
