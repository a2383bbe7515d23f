import { type DataField } from '../../marc';
import { editDistance, fold } from '../../text';
import type { PersonEvidence } from './compare-persons';
import { different, perhaps, same, type Judged } from './verdict';
import { placeName, placesText, withCentury, withFullYears } from './written-out';

/** A uniform title, or a subject, in the parts that are compared; everything folded. */
export interface TitledWork {
  /** Its own words. */
  readonly main: string;
  /** What makes another work of it: parts, language, version, year; each with its code. */
  readonly parts: readonly string[];
  /** What stands in brackets. */
  readonly qualifiers: readonly string[];
}

const ARTICLE = /^(?:the|a|an|le|la|les|l|der|die|das|el|los|las|il|un|une|ein|eine)\s+(?=\S)/;
const bracketed = (written: string): readonly [plain: string, inside: string[]] => {
  const inside: string[] = [];
  const text = withFullYears(written).replace(/&|\+/g, ' and ');
  const plain = text.replace(/\(([^)]*)\)?/g, (_, within: string) => {
    inside.push(placesText(within));
    return ' ';
  });
  return [plain, inside];
};

/** Number words and abbreviations of parts, as one form. */
const PARTS: Readonly<Record<string, string>> = {
  no: 'number',
  nr: 'number',
  op: 'opus',
  pt: 'part',
  bk: 'book',
  vol: 'volume',
  bd: 'volume',
  v: 'volume',
};
const partText = (text: string): string => {
  const words = fold(withFullYears(text).replace(/[&+]/g, ' and '))
    .split(' ')
    .map((w) => PARTS[w] ?? w)
    .join(' ');
  return TESTAMENTS.get(words) ?? words;
};
/** Short names of the two (Anglo-American Cataloguing Rules, 25.18A); the rules since write them out (RDA 6.23.2.9.2). */
const TESTAMENTS: ReadonlyMap<string, string> = new Map([
  ['n t', 'new testament'],
  ['o t', 'old testament'],
]);

/** Reads a uniform title (X30), or the title behind a name, from these subfields. */
export function readTitle(subfields: DataField['subfields']): TitledWork {
  const [first, ...rest] = subfields;
  const [plain, qualifiers] = bracketed(first?.value ?? '');
  const main = fold(plain).replace(ARTICLE, '');
  const parts = rest.flatMap((s) =>
    s.code === 'h' || s.code === 't' ? [] : [`${s.code} ${partText(s.value)}`],
  );
  // A book of the Bible is named without its testament since (RDA 6.23.2.9.2).
  const isInTestament = main === 'bible' && parts.filter((p) => p.startsWith('p ')).length > 1;
  return {
    main,
    parts: isInTestament ? parts.filter((p) => !/^p (?:old|new) testament$/.test(p)) : parts,
    qualifiers,
  };
}

const divisionText = (text: string): string => withCentury(fold(withFullYears(text)));

/** Reads a subject (X48, X50, X51, X55) with its subdivisions: those of form and topic are one kind, in their order. */
export function readSubject(f: DataField): TitledWork {
  const divisions: { code: string; text: string }[] = [];
  const isPlace = f.tag.endsWith('51');
  const qualifiers: string[] = [];
  let main = '';
  for (const { code, value } of f.subfields) {
    if (code === 'a' && main === '') {
      const [own, ...dashed] = value.split(/\s*(?:--|—|–)\s*/);
      const [plain, inside] = bracketed(own ?? '');
      main = isPlace ? placeName(fold(plain)) : withCentury(fold(plain));
      qualifiers.push(...inside);
      divisions.push(...dashed.map((text) => ({ code: '?', text: divisionText(text) })));
    } else if ('vxyz'.includes(code))
      divisions.push({
        code: code === 'v' ? 'x' : code,
        text: code === 'z' ? placeName(placesText(value)) : divisionText(value),
      });
    else if ('bcdg'.includes(code)) divisions.push({ code, text: fold(value) });
  }
  // Where a subdivision is written with dashes its kind is not known: then all are compared by their words.
  const isDashed = divisions.some((d) => d.code === '?');
  const topics = divisions.filter((d) => d.code === 'x').map((d) => d.text);
  const others = divisions
    .filter((d) => d.code !== 'x')
    .map((d) => (isDashed ? d.text : `${d.code} ${d.text}`));
  return {
    main,
    parts: isDashed
      ? [
          `? ${divisions
            .map((d) => d.text)
            .sort()
            .join(' | ')}`,
        ]
      : [...(topics.length ? [`x ${topics.join(' | ')}`] : []), ...others.sort()],
    qualifiers,
  };
}

const wordPairs = (a: string, b: string): (readonly [string, string])[] | null => {
  const [x, y] = [a.split(' '), b.split(' ')];
  return x.length === y.length ? x.flatMap((w, i) => (w === y[i] ? [] : [[w, y[i]!] as const])) : null;
};
const SINGULAR: readonly (readonly [RegExp, string])[] = [
  [/ies$/, 'y'],
  [/(ch|sh|x|s|z)es$/, '$1'],
  [/ves$/, 'f'],
  [/men$/, 'man'],
  [/(?<!s)s$/, ''],
];
/** A word without the ending of its plural. */
export const singular = (word: string): string => {
  const rule = SINGULAR.find(([ending]) => ending.test(word));
  return rule ? word.replace(rule[0], rule[1]) : word;
};

const isVowel = (letter: string) => /[aeiouy]/.test(letter);
/** One letter more, or another of its kind: Painting and Printing are two words. */
function isSlip(a: string, b: string): boolean {
  if (editDistance(a, b, 1) !== 1) return false;
  const at = [...a].findIndex((letter, i) => letter !== b[i]);
  return a.length !== b.length || isVowel(a[at]!) === isVowel(b[at]!);
}

/** How two texts are nearly one; null when they are not. */
function nearly(a: string, b: string): string | null {
  const odd = wordPairs(a, b);
  const [pair] = odd ?? [];
  if (odd?.length === 1 && pair) {
    const [x, y] = pair;
    if (singular(x) === singular(y)) return 'one is a plural';
    if (/\d/.test(x + y)) return null;
    if (Math.min(x.length, y.length) >= 5 && x[0] === y[0] && isSlip(x, y))
      return 'they differ by one letter';
  }
  if (a.replaceAll(' ', '') === b.replaceAll(' ', '')) return 'one is written in one word';
  const sorted = (text: string) => text.split(' ').map(singular).sort().join(' ');
  if (a.includes(' ') && sorted(a) === sorted(b)) return 'the same words in another order';
  return null;
}

const dashes = (parts: readonly string[]) => parts.find((p) => p.startsWith('? '))?.slice(2);
const plainParts = (parts: readonly string[]) =>
  parts
    .flatMap((p) => p.slice(2).split(' | '))
    .sort()
    .join(' | ');

/** Whether the divisions of two are the same ones. */
const samePartsAs = (a: TitledWork, b: TitledWork): boolean => {
  const [x, y] = [dashes(a.parts), dashes(b.parts)];
  if (x === undefined && y === undefined) return a.parts.join('\n') === b.parts.join('\n');
  return (x ?? plainParts(a.parts)) === (y ?? plainParts(b.parts));
};

/** Parts in which a plural, or a letter, may be a slip; not the medium of music (one violin or two), nor what is numbered. */
const MAY_SLIP = /^[lpxz] /;

/** Each part, and each topic of a subject, by itself, with its code. */
const singleParts = (parts: readonly string[]): string[] =>
  parts.flatMap((p) =>
    p
      .slice(2)
      .split(' | ')
      .map((text) => p.slice(0, 2) + text),
  );

/** How the parts of two are nearly the same ones: one of them is written otherwise. */
function nearlyParts(a: TitledWork, b: TitledWork): string | null {
  const [x, y] = [singleParts(a.parts), singleParts(b.parts)];
  const [mine, theirs] = [x.filter((p) => !y.includes(p)), y.filter((p) => !x.includes(p))];
  const [one, other] = [mine[0] ?? '', theirs[0] ?? ''];
  if (x.length !== y.length || mine.length !== 1 || theirs.length !== 1) return null;
  return MAY_SLIP.test(one) && one[0] === other[0] ? nearly(one.slice(2), other.slice(2)) : null;
}

/** Parts without the key of music, which is there for the reader only where there is a number. */
export const withoutKey = (parts: readonly string[]): readonly string[] =>
  parts.filter((p) => !p.startsWith('r '));
function isSameButForKey(a: TitledWork, b: TitledWork): boolean {
  const [x, y] = [withoutKey(a.parts), withoutKey(b.parts)];
  const isNumbered = x.some((p) => p.startsWith('n '));
  const isInOne = (x.length === a.parts.length) !== (y.length === b.parts.length);
  return isNumbered && isInOne && x.join('\n') === y.join('\n');
}

/** What stands in brackets, as it is compared: "On-line" as "Online". */
const inBrackets = (work: TitledWork): string => work.qualifiers.join('').replaceAll(' ', '');

/** All words of a work but for its parts, as they are said. */
export const spoken = (work: TitledWork): string => [work.main, ...work.qualifiers].join(' ');

/** Whether two are one work, or one subject. One subdivision or part more makes another. */
export function compareWorks(
  a: TitledWork,
  b: TitledWork,
  known: Pick<PersonEvidence, 'isSeeFrom' | 'shared' | 'titles'>,
): Judged {
  if (known.isSeeFrom) return same('one is a see-from of the other');
  const [p, q] = [inBrackets(a), inBrackets(b)];
  if (!samePartsAs(a, b)) {
    if (a.main === b.main && p === q && isSameButForKey(a, b))
      return perhaps('the words are the same', 'only one names the key');
    const how = a.main === b.main && p === q ? nearlyParts(a, b) : null;
    return how
      ? perhaps('the words are the same', `of a part or subdivision: ${how}`)
      : different('the parts or subdivisions differ');
  }
  if (p && q && p !== q) return different('what stands in brackets differs');
  const qualified = p !== q;
  if (a.main === b.main)
    return qualified
      ? perhaps('the words are the same', 'only one has something in brackets')
      : same(
          a.parts.join() === b.parts.join()
            ? 'the words are the same'
            : 'the same words, written with dashes or in another order',
        );
  if (qualified && spoken(a) === spoken(b)) return perhaps('the same words, in brackets and without');
  const how = qualified ? null : nearly(a.main, b.main);
  return how ? perhaps(how, ...known.shared) : different('the words differ');
}
