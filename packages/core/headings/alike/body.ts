import { values, type DataField } from '../../marc';
import { editDistance, fold } from '../../text';
import { LEGAL, linkingWords, ordinalNumber, ORDINAL, wordsOf, WRITTEN_ORDINALS } from './body-words';
import type { PersonEvidence } from './compare-persons';
import { different, perhaps, same, type Judged } from './verdict';
import { singular } from './work';
import { placesText, withFullYears } from './written-out';

/** A corporate body or meeting in the parts that are compared; everything folded. */
export interface Body {
  /** Its words with abbreviations written out, its units behind it. */
  readonly words: readonly string[];
  /** What stands between its words: of, for, in. */
  readonly linking: string;
  /** Words of each unit: "Wickmere Institute. Library" has two. */
  readonly units: readonly (readonly string[])[];
  /** What stands in brackets and is no number, date or place of a meeting: what tells bodies of one name apart. */
  readonly qualifiers: readonly string[];
  readonly number: string;
  /** Years of a meeting or treaty, or those of an office. */
  readonly years: readonly string[];
  /** An office that is still held: "2001-". */
  readonly isOpen: boolean;
  /** Words of where a meeting was, or of who held an office. */
  readonly place: readonly string[];
}

const saidNumber = (word: string): string => (/^\d+th$/.test(word) ? word.slice(0, -2) : '');
const OPEN = /\d{4}\s*-\s*$/;
const yearsIn = (text: string): string[] => text.match(/\b1[0-9]\d\d|\b20\d\d/g) ?? [];

/** Reads a corporate body or meeting (X10, X11). */
export function readBody(f: DataField): Body {
  const isMeeting = f.tag.endsWith('11');
  const codes = isMeeting ? 'aeq' : 'ab';
  const brackets: string[] = [];
  const named = f.subfields.filter((s) => codes.includes(s.code));
  const linking = named.flatMap((s) => linkingWords(s.value.replace(/\([^)]*\)?/g, ' '))).join(' ');
  const units = named
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
    .map((p) => withFullYears(p.trim()))
    .filter((p) => fold(p) !== '');
  const years = parts.flatMap(yearsIn);
  const numbered =
    parts
      .map(fold)
      .find((p) => yearsIn(p).length === 0 && (ORDINAL.test(p) || WRITTEN_ORDINALS.includes(p))) ?? '';
  // "Third Congress of Eels": its number as it is said.
  const [name = []] = units;
  const said = isMeeting && numbered === '' && name.length > 1 ? saidNumber(name[0]!) : '';
  if (said) name.shift();
  const number = numbered || said;
  const left = parts
    .filter((p) => yearsIn(p).length === 0 && ordinalNumber(p) !== ordinalNumber(number))
    .map(placesText);
  const placed = isMeeting || years.length > 0 || number !== '';
  return {
    words: units.flat(),
    linking,
    units,
    qualifiers: placed ? [] : left.flatMap(wordsOf),
    number: number ? ordinalNumber(number) : '',
    years: [...new Set(years)],
    isOpen: parts.some((p) => OPEN.test(p)),
    place: placed ? left.flatMap(wordsOf) : [],
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
/** Whether two are the same but for what kind of company they are; most differ in their first word. */
function areSameBare(a: readonly string[], b: readonly string[]): boolean {
  if (a[0] !== b[0] && !LEGAL.has(a[0] ?? '') && !LEGAL.has(b[0] ?? '')) return false;
  const plain = without(a, LEGAL);
  return plain.length > 0 && areSame(plain, without(b, LEGAL));
}
/** Whether two have the same words, in whatever order. */
const areSameWords = (a: readonly string[], b: readonly string[]) =>
  a.length === b.length && a.every((w) => b.includes(w)) && areSame([...a].sort(), [...b].sort());

/** The same with plurals for one; of most that are not, the first word that the other lacks has none that begins like it there. */
function areSameButPlurals(a: readonly string[], b: readonly string[]): boolean {
  if (a.length !== b.length) return false;
  for (const word of a) if (!b.includes(word) && !b.some((w) => w[0] === word[0])) return false;
  return areSameWords(a.map(singular), b.map(singular));
}

/** Whether something of two agrees; null where only one says it. */
type Agreement = 'yes' | 'partly' | 'no' | null;

/** Years of a meeting or an office: an open office may have been closed since; two that only touch (1993-2001, 2001-2009) are two. */
function yearsAgree(a: Body, b: Body): Agreement {
  const [few, many] = a.years.length <= b.years.length ? [a, b] : [b, a];
  if (few.years.length === 0) return null;
  if (!few.years.every((y) => many.years.includes(y))) return 'no';
  if (few.years.length === many.years.length) return 'yes';
  return few.isOpen && few.years[0] === many.years[0] ? 'yes' : 'partly';
}

const isNumeral = (word: string) => /^\d+$|^[ivx]+$/.test(word);

/** Words of places, or of who held an office. */
function placesAgree(a: readonly string[], b: readonly string[]): Agreement {
  if (a.length === 0 || b.length === 0) return null;
  const [mine, theirs] = [a.filter((w) => !b.includes(w)), b.filter((w) => !a.includes(w))];
  if (mine.length === a.length || [...mine, ...theirs].some(isNumeral)) return 'no';
  if (mine.length === 0 || theirs.length === 0) return 'yes';
  const isShortened = mine.every((w, i) => {
    const other = theirs[i] ?? '';
    return other !== '' && (w.startsWith(other) || other.startsWith(w));
  });
  return isShortened ? 'yes' : 'partly';
}

/** Whether two are one corporate body or meeting. */
export function compareBodies(a: Body, b: Body, known: PersonEvidence): Judged {
  if (known.isSeeFrom) return same('one is a see-from of the other');
  if (a.number && b.number && a.number !== b.number) return different('the numbers differ');
  const years = yearsAgree(a, b);
  if (years === 'no') return different('the years differ');
  const places = placesAgree(a.place, b.place);
  if (places === 'no') return different('the places or names behind it differ');
  const isSameName = areSame(a.words, b.words);
  const bare = isSameName || areSameBare(a.words, b.words);
  if (a.qualifiers.length && b.qualifiers.length) {
    const common = a.qualifiers.filter((w) => b.qualifiers.includes(w)).length;
    if (common < Math.min(a.qualifiers.length, b.qualifiers.length))
      return different('what stands in brackets differs');
  }
  const isPlaced = Boolean(a.number || b.number || a.years.length || b.years.length);
  if (isPlaced && (isSameName || bare)) {
    const missing = [a.number !== b.number, a.years.length > 0 !== b.years.length > 0].filter(Boolean).length;
    if (missing === 0)
      return years === 'partly' || places === 'partly'
        ? perhaps('the name is the same', 'only some of the years or places agree')
        : same('the name is the same', 'number, year and place agree');
    return years || (a.number && a.number === b.number)
      ? perhaps('the name is the same', 'one says less')
      : different('one is of a certain meeting');
  }
  const qualified = a.qualifiers.length > 0 !== b.qualifiers.length > 0;
  const evidence = [...known.shared, ...(qualified ? ['only one has something in brackets'] : [])];
  if (isSameName) {
    if (a.linking !== b.linking) return perhaps('the name is the same but for a small word', ...evidence);
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
  if (a.words.length !== b.words.length && a.words.join('') === b.words.join(''))
    return perhaps('one is written in one word', ...evidence);
  if ((a.words.length > 2 || years === 'yes') && areSameButPlurals(a.words, b.words))
    return perhaps('the same words, some of them plurals', ...evidence);
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
