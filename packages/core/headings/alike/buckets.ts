import { textNumber } from '../../text';
import type { Body } from './body';
import type { Form } from './forms';
import { sounded, spelled } from './name-parts';
import { toldWords, type NamedPerson } from './person';
import { singular, spoken, withoutKey, type TitledWork } from './work';

/** A word of a form, and the words that lie near it, itself among them; all as numbers (see `textNumber`). */
export interface BucketWord {
  readonly word: number;
  readonly near: readonly number[];
}

/**
 * Where a form is compared with others. Two that share none of the buckets, and have no words with a near word in common, are not alike. That words lie near each
 * other is kept once for a word, not for each of the forms that have it.
 */
export interface Buckets {
  readonly exact: readonly number[];
  readonly words: readonly BucketWord[];
}

/** All buckets that a form is in, each once, those of its words last. */
export const bucketsIn = ({ exact, words }: Buckets): number[] =>
  [...exact, ...words.map((w) => w.word)].filter((bucket, i, all) => all.indexOf(bucket) === i);

/** The numbers of texts of one kind; see `textNumber`. */
type Numbers = (text: string, behind?: string, without?: number) => number;

/** A text with each of its letters left out, and as it is: two that differ by one letter share one of these. Of a short one no letter is left out. */
function lettersOut(number: Numbers, text: string, behind: string): number[] {
  const found = [number(text, behind)];
  if (text.length >= 5) for (let i = 0; i < text.length; i++) found.push(number(text, behind, i));
  return [...new Set(found)];
}

/** A word that only those lie near which come to just this by a letter less. What lies near a word depends on the word alone. */
const alone = (number: Numbers, text: string): BucketWord => ({
  word: number(text, ' alone'),
  near: [number(text)],
});

/** Letters of a name in direct order that may be left out. */
const DIRECT_LETTERS = 40;

/** The year of birth, where it is known; else that of death. */
function yearOf(dates: NamedPerson['dates']): number | null {
  const known = dates?.born ?? dates?.died;
  return known && known.from === known.to ? known.from : null;
}

function ofPerson(person: NamedPerson, number: Numbers): Buckets {
  const { surname, core, given, dates } = person;
  const initial = given[0]?.[0] ?? '';
  const crossed = number([...surname.split(' '), ...given].filter(Boolean).sort().join(' '), ' all');
  if (surname === '') {
    const word = number(given.join(' '), ' direct');
    const near = lettersOut(number, given.join(''), ' direct').slice(0, DIRECT_LETTERS);
    const told = number(toldWords(person).join(' '), ' all');
    return { exact: [...new Set([crossed, told])], words: [{ word, near: [...new Set([word, ...near])] }] };
  }
  const behind = ` ${initial}`;
  const parts = surname.split(' ').filter((p) => p.length > 3);
  const joined = surname.replaceAll(' ', '');
  const others = [spelled(core), joined, ...(parts.length > 1 ? parts : [])].filter((w) => w !== core);
  // A familiar form, or another of the forenames, may begin with another letter.
  const year = yearOf(dates);
  return {
    exact: [
      ...(core.length >= 4 ? [number(sounded(core), `${behind} sound`)] : []),
      ...(year === null ? [] : [number(core, ` ${year} year`)]),
      crossed,
    ],
    words: [
      { word: number(core, behind), near: lettersOut(number, core, behind) },
      ...others.map((w) => alone(number, w + behind)),
    ],
  };
}

/**
 * Words together, and what is left without each of them, with what stands for that word: two that differ in one word share one of these when their two words stand for
 * the same. One word alone is told by its letters.
 */
function wordsOut(
  number: Numbers,
  words: readonly string[],
  behind: string,
  standsFor: (word: string) => readonly string[],
): number[] {
  const [only = ''] = words;
  if (words.length < 2) return lettersOut(number, only, behind);
  const found = [number(words.join(' '), behind)];
  words.forEach((word, i) => {
    const some = standsFor(word);
    if (some.length === 0) return;
    const rest = words.filter((_, k) => k !== i).join(' ');
    for (const w of some) found.push(number(rest, ` ${i}:${w}${behind}`));
  });
  return [...new Set(found)];
}
/** Letters that two words need to have to be taken for one that is written wrong; digits are never. */
const isLong = (word: string) => word.length >= 5 && !/\d/.test(word);
/** Two words of one letter's difference have the first letter or the last in common. */
const inBody = (word: string) => (isLong(word) ? [`<${word[0]!}`, `>${word.at(-1)!}`] : []);
/** In titles and subjects one may be a plural; of two that differ by one letter the first is the same. */
const inWork = (word: string) => [singular(word), ...(isLong(word) ? [`<${word[0]!}`] : [])];

/** Words of a long name that are looked at. */
const FIRST_WORDS = 12;

const LEGAL = /\b(?:incorporated|limited|company|corporation|llc|plc)\b/g;
function ofBody({ words, units }: Body, number: Numbers): Buckets {
  const bare = words.join(' ').replace(LEGAL, '').replace(/\s+/g, ' ').trim();
  const acronym = words.length > 2 ? words.map((w) => w[0]).join('') : words.length === 1 ? words[0]! : '';
  const first = words.slice(0, FIRST_WORDS);
  const unit = units.at(-1) ?? [];
  return {
    exact: [
      number(bare, ' bare'),
      number(words.map(singular).sort().join(' '), ' sorted'),
      ...(words.length > 1 ? [number(words.join(''), ' joined')] : []),
      // One word does not name a body by itself: every other institute has a library.
      ...(unit.length > 1 ? [number(unit.join(' '), ' unit')] : []),
      ...(acronym ? [number(acronym, ' acronym')] : []),
    ],
    words: [{ word: number(first.join(' ')), near: wordsOut(number, first, '', inBody) }],
  };
}

/** What a name is told by roughly, before a title. */
const nameStem = (by: NamedPerson | Body | null): string =>
  by === null ? '' : 'surname' in by ? sounded(by.core || by.given.join('')) : (by.words[0] ?? '');

/** A work without each of its parts or subdivisions, with the letter that this one begins with: two in which one of them is written otherwise share one of these. */
function partsOut(main: string, rest: string, number: Numbers): number[] {
  const parts = rest === '' ? [] : rest.split('|').sort();
  return parts.map((part, i) =>
    number(main, ` ${parts.filter((_, k) => k !== i).join('|')} ${part[0] ?? ''} part`),
  );
}

function ofWork(work: TitledWork, by: NamedPerson | Body | null, number: Numbers): Buckets {
  const { main, parts, qualifiers } = work;
  const words = main.split(' ');
  const rest = withoutKey(parts)
    .map((p) => p.slice(2))
    .sort()
    .join('|')
    .replaceAll(' | ', '|');
  const divided = rest.split('|').sort().join('|');
  const behind = ` ${nameStem(by)} ${by ? '' : divided}`;
  const first = words.slice(0, FIRST_WORDS);
  return {
    exact: by ? [] : partsOut(main, rest, number),
    words: [
      { word: number(first.join(' '), behind), near: wordsOut(number, first, behind, inWork) },
      ...[
        words.join(''),
        words.map(singular).sort().join(' '),
        ...(qualifiers.length ? [spoken(work)] : []),
      ].map((w) => alone(number, w + behind)),
    ],
  };
}

/** The buckets of a form; what is `also` given are texts of further ones. */
export function bucketsOf(
  { type, vocabulary, parts }: Omit<Form, 'text'>,
  also: readonly string[] = [],
): Buckets {
  const kind = textNumber(`${type} ${vocabulary}`) | 0;
  const number: Numbers = (text, behind, without) => textNumber(text, kind, behind, without);
  const { exact, words } =
    parts.as === 'person'
      ? ofPerson(parts.person, number)
      : parts.as === 'body'
        ? ofBody(parts.body, number)
        : ofWork(parts.work, parts.by, number);
  const byWord = words.length > 1 ? [...new Map(words.map((w) => [w.word, w])).values()] : words;
  return { exact: [...new Set([...exact, ...also.map((text) => number(text))])], words: byWord };
}
