import { values, type DataField } from '../../marc';
import { editDistance, fold } from '../../text';
import type { PersonEvidence } from './compare-persons';
import { different, perhaps, same, type Judged } from './verdict';

/** A corporate body or meeting in the parts that are compared; everything folded. */
export interface Body {
  /** Its words with abbreviations written out, its units behind it. */
  readonly words: readonly string[];
  /** Words of each unit: "Wickmere Institute. Library" has two. */
  readonly units: readonly (readonly string[])[];
  /** What stands in brackets and is no number, date or place of a meeting: what tells bodies of one name apart. */
  readonly qualifiers: readonly string[];
  readonly number: string;
  /** Years of a meeting or treaty. */
  readonly years: readonly string[];
  readonly place: string;
}

/** Short forms in names of bodies (common practice, no source). */
const SHORT: ReadonlyMap<string, string> = new Map(
  Object.entries({
    acad: 'academy',
    admin: 'administration',
    agric: 'agriculture',
    amer: 'american',
    assn: 'association',
    assoc: 'association',
    brit: 'british',
    bros: 'brothers',
    bur: 'bureau',
    bldg: 'building',
    cent: 'central',
    co: 'company',
    coll: 'college',
    comm: 'committee',
    conf: 'conference',
    cong: 'congress',
    corp: 'corporation',
    ctr: 'center',
    centre: 'center',
    dept: 'department',
    dev: 'development',
    dist: 'district',
    div: 'division',
    educ: 'education',
    eng: 'engineering',
    expt: 'experiment',
    fed: 'federal',
    found: 'foundation',
    gen: 'general',
    govt: 'government',
    hist: 'historical',
    hosp: 'hospital',
    inc: 'incorporated',
    inst: 'institute',
    int: 'international',
    internat: 'international',
    intl: 'international',
    lab: 'laboratory',
    labour: 'labor',
    lib: 'library',
    ltd: 'limited',
    mfg: 'manufacturing',
    min: 'ministry',
    mus: 'museum',
    nat: 'national',
    natl: 'national',
    off: 'office',
    org: 'organization',
    organisation: 'organization',
    pub: 'publishing',
    publ: 'publishing',
    res: 'research',
    roy: 'royal',
    sch: 'school',
    sci: 'science',
    sec: 'section',
    serv: 'service',
    soc: 'society',
    st: 'saint',
    sta: 'station',
    tech: 'technical',
    univ: 'university',
    cttee: 'committee',
    symp: 'symposium',
    theatre: 'theater',
    us: 'united states',
    usa: 'united states',
    uk: 'great britain',
  }),
);
/** Words that say what kind of company it is; one form may lack them. */
const LEGAL = new Set([
  'incorporated',
  'limited',
  'company',
  'corporation',
  'llc',
  'plc',
  'gmbh',
  'ag',
  'sa',
]);
const SMALL = new Set([
  'the',
  'a',
  'an',
  'of',
  'and',
  'for',
  'in',
  'on',
  'at',
  'le',
  'la',
  'les',
  'der',
  'die',
  'das',
  'de',
  'und',
  'et',
]);

/** Initials in one word: "U.S." as "US". */
const withoutStops = (text: string): string =>
  text.includes('.') ? text.replace(/\b((?:\p{L}\.){2,})/gu, (m) => m.replaceAll('.', '')) : text;

const wordsOf = (text: string): string[] =>
  fold(withoutStops(text.replace(/[&+]/g, ' and ')))
    .split(' ')
    .filter(Boolean)
    .flatMap((w) => SHORT.get(w)?.split(' ') ?? countedWord(w))
    .filter((w) => !SMALL.has(w));

const ORDINAL = /^(\d+)(?:st|nd|rd|th|d|e|er|eme|\.)?$/;
const WRITTEN = [
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
  'eleventh',
  'twelfth',
];
const numberOf = (text: string): string => {
  const plain = fold(text);
  const at = WRITTEN.indexOf(plain);
  return at >= 0 ? String(at + 1) : (ORDINAL.exec(plain)?.[1] ?? plain);
};
/** "Third" and "3rd" as one word; 3 alone is another, and 3D is no ordinal in a name. */
const countedWord = (word: string): string =>
  WRITTEN.includes(word) || /^\d+(?:st|nd|rd|th)$/.test(word) ? `${numberOf(word)}th` : word;
const yearsIn = (text: string): string[] => text.match(/\b1[0-9]\d\d|\b20\d\d/g) ?? [];

/** Reads a corporate body or meeting (X10, X11). */
export function readBody(f: DataField): Body {
  const isMeeting = f.tag.endsWith('11');
  const codes = isMeeting ? 'aeq' : 'ab';
  const brackets: string[] = [];
  const units = f.subfields
    .filter((s) => codes.includes(s.code))
    .map((s) =>
      wordsOf(
        s.value.replace(/\(([^)]*)\)?/g, (_, inside: string) => {
          brackets.push(...inside.split(/\s*[:;]\s*/));
          return ' ';
        }),
      ),
    )
    .filter((u) => u.length > 0);
  const coded = (code: string) => values(f, code).flatMap((v) => v.replace(/[()]/g, ' ').split(/\s*[:;]\s*/));
  const parts = [...brackets, ...coded('n'), ...coded('d'), ...coded('c'), ...(isMeeting ? [] : coded('g'))]
    .map((p) => p.trim())
    .filter((p) => fold(p) !== '');
  const years = parts.flatMap(yearsIn);
  const number =
    parts.map(fold).find((p) => yearsIn(p).length === 0 && (ORDINAL.test(p) || WRITTEN.includes(p))) ?? '';
  const left = parts.filter((p) => yearsIn(p).length === 0 && numberOf(p) !== numberOf(number)).map(fold);
  const placed = isMeeting || years.length > 0 || number !== '';
  return {
    words: units.flat(),
    units,
    qualifiers: placed ? [] : left.flatMap(wordsOf),
    number: number ? numberOf(number) : '',
    years: [...new Set(years)],
    place: placed ? left.join(' ') : '',
  };
}

/** Words of two that differ by one letter, where all others are the same. */
function oneLetterApart(a: readonly string[], b: readonly string[]): boolean {
  if (a.length !== b.length) return false;
  const odd = a.findIndex((w, i) => w !== b[i]);
  if (odd < 0) return false;
  const [x, y] = [a[odd]!, b[odd]!];
  return (
    Math.min(x.length, y.length) >= 5 &&
    a.every((w, i) => i <= odd || w === b[i]) &&
    !/\d/.test(x + y) &&
    editDistance(x, y, 1) === 1
  );
}

const isPlural = (a: string, b: string) => a === `${b}s` || b === `${a}s`;
const without = (words: readonly string[], set: ReadonlySet<string>) => words.filter((w) => !set.has(w));
const areSame = (a: readonly string[], b: readonly string[]) =>
  a.length === b.length && a.every((w, i) => w === b[i]);
/** Whether two have the same words, in whatever order. */
const areSameWords = (a: readonly string[], b: readonly string[]) =>
  a.length === b.length && a.every((w) => b.includes(w)) && areSame([...a].sort(), [...b].sort());

/** Whether two are one corporate body or meeting. */
export function compareBodies(a: Body, b: Body, known: PersonEvidence): Judged {
  if (known.isSeeFrom) return same('one is a see-from of the other');
  if (a.number && b.number && a.number !== b.number) return different('the numbers differ');
  const years = a.years.length && b.years.length ? a.years.some((y) => b.years.includes(y)) : null;
  if (years === false) return different('the years differ');
  const [p, q] = a.place && b.place ? [wordsOf(a.place), wordsOf(b.place)] : [[], []];
  if (p.length && q.length && !p.some((w) => q.includes(w))) return different('the places differ');
  const isSameName = areSame(a.words, b.words);
  const plain = without(a.words, LEGAL);
  const bare = plain.length > 0 && areSame(plain, without(b.words, LEGAL));
  if (a.qualifiers.length && b.qualifiers.length) {
    const common = a.qualifiers.filter((w) => b.qualifiers.includes(w)).length;
    if (common < Math.min(a.qualifiers.length, b.qualifiers.length))
      return different('what stands in brackets differs');
  }
  const isPlaced = Boolean(a.number || b.number || a.years.length || b.years.length);
  if (isPlaced && (isSameName || bare)) {
    const missing = [a.number !== b.number, a.years.length > 0 !== b.years.length > 0].filter(Boolean).length;
    if (missing === 0) return same('the name is the same', 'number, year and place agree');
    return years || (a.number && a.number === b.number)
      ? perhaps('the name is the same', 'one says less')
      : different('one is of a certain meeting');
  }
  const qualified = a.qualifiers.length > 0 !== b.qualifiers.length > 0;
  const evidence = [...known.shared, ...(qualified ? ['only one has something in brackets'] : [])];
  if (isSameName) {
    if (!qualified) return same('the same words, short forms written out', ...evidence);
    return known.isOnly && known.titles > 0
      ? same('the name is the same', ...evidence)
      : perhaps('the name is the same', ...evidence);
  }
  if (bare) return perhaps('the name is the same but for what kind of company it is', ...evidence);
  if (qualified && known.titles === 0) return different('the names differ');
  if (oneLetterApart(a.words, b.words)) {
    const odd = a.words.findIndex((w, i) => w !== b.words[i]);
    const says = isPlural(a.words[odd]!, b.words[odd]!)
      ? 'one word is a plural'
      : 'the names differ by one letter';
    return perhaps(says, ...evidence);
  }
  if (a.words.length > 1 && areSameWords(a.words, b.words))
    return perhaps('the same words in another order', ...evidence);
  const [last, other] = [a.units.at(-1)!, b.units.at(-1)!];
  const isUnit = (unit: readonly string[], of: Body, whole: Body) =>
    of.units.length > whole.units.length && unit.length > 1 && areSame(unit, whole.words);
  if (isUnit(last, a, b) || isUnit(other, b, a))
    return perhaps('one is named by itself, the other under a larger body', ...evidence);
  // "Wick. Statistics Division" and "Wick. Ministry of Health. Statistics Division".
  if (
    a.units.length !== b.units.length &&
    Math.min(a.units.length, b.units.length) > 1 &&
    last.length > 1 &&
    areSame(last, other) &&
    areSame(a.units[0]!, b.units[0]!)
  )
    return perhaps('one names a larger body between', ...evidence);
  return known.titles > 0 && isAcronym(a, b)
    ? perhaps('one may be the other’s initials', ...evidence)
    : different('the names differ');
}

/** Whether one is the initials of the other. */
function isAcronym(a: Body, b: Body): boolean {
  const [short, long] = a.words.length <= b.words.length ? [a.words, b.words] : [b.words, a.words];
  return short.length === 1 && long.length > 2 && short[0] === long.map((w) => w[0]).join('');
}
