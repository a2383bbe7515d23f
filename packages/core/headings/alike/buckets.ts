import { textNumber } from '../../text';
import type { Body } from './body';
import type { Form } from './forms';
import { sounded, spelled } from './name-parts';
import type { NamedPerson } from './person';
import { singular, type TitledWork } from './work';

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

/** The same as texts; each word beside its near ones. */
interface Written {
  readonly exact: readonly string[];
  readonly words: readonly (readonly [word: string, near: readonly string[]])[];
}

/** A word with each of its letters left out: two that differ by one letter share one of these. */
const lettersOut = (word: string): string[] =>
  word.length < 5
    ? [word]
    : [word, ...Array.from({ length: word.length }, (_, i) => word.slice(0, i) + word.slice(i + 1))];

/** A word that only those lie near which come to just this by a letter less. What lies near a word depends on the word alone. */
const alone = (word: string): readonly [string, readonly string[]] => [`${word} alone`, [word]];

function ofPerson({ surname, core, given }: NamedPerson): Written {
  const initial = given[0]?.[0] ?? '';
  const crossed = [...surname.split(' '), ...given].filter(Boolean).sort().join(' ');
  if (surname === '') {
    const direct = `${given.join(' ')} direct`;
    const near = lettersOut(given.join(''))
      .slice(0, 40)
      .map((w) => `${w} direct`);
    return { exact: [`${crossed} all`], words: [[direct, [direct, ...near]]] };
  }
  const parts = surname.split(' ').filter((p) => p.length > 3);
  const others = [spelled(core), ...(parts.length > 1 ? parts : [])].filter((w) => w !== core);
  return {
    exact: [...(core.length >= 4 ? [`${sounded(core)} ${initial} sound`] : []), `${crossed} all`],
    words: [
      [`${core} ${initial}`, lettersOut(core).map((w) => `${w} ${initial}`)],
      ...others.map((w) => alone(`${w} ${initial}`)),
    ],
  };
}

/**
 * Words together, and what is left without each of them, with what stands for that word: two that differ in one word share one of these when their two words stand for
 * the same. One word alone is told by its letters.
 */
function wordsOut(words: readonly string[], standsFor: (word: string) => readonly string[]): string[] {
  const [only = ''] = words;
  if (words.length < 2) return lettersOut(only);
  return [
    words.join(' '),
    ...words.flatMap((word, i) => {
      const rest = words.filter((_, k) => k !== i).join(' ');
      return standsFor(word).map((w) => `${rest} ${i}:${w}`);
    }),
  ];
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
function ofBody({ words, units }: Body): Written {
  const bare = words.join(' ').replace(LEGAL, '').replace(/\s+/g, ' ').trim();
  const acronym = words.length > 2 ? words.map((w) => w[0]).join('') : words.length === 1 ? words[0]! : '';
  const first = words.slice(0, FIRST_WORDS);
  const unit = units.at(-1) ?? [];
  return {
    exact: [
      `${bare} bare`,
      `${[...words].sort().join(' ')} sorted`,
      // One word does not name a body by itself: every other institute has a library.
      ...(unit.length > 1 ? [`${unit.join(' ')} unit`] : []),
      ...(acronym ? [`${acronym} acronym`] : []),
    ],
    words: [[first.join(' '), wordsOut(first, inBody)]],
  };
}

/** What a name is told by roughly, before a title. */
const nameStem = (by: NamedPerson | Body | null): string =>
  by === null ? '' : 'surname' in by ? sounded(by.core || by.given.join('')) : (by.words[0] ?? '');

function ofWork({ main, parts }: TitledWork, by: NamedPerson | Body | null): Written {
  const stem = nameStem(by);
  const words = main.split(' ');
  const rest = parts
    .map((p) => p.slice(2))
    .sort()
    .join('|')
    .replaceAll(' | ', '|');
  const divided = rest.split('|').sort().join('|');
  const whole = (w: string) => `${w} ${stem} ${by ? '' : divided}`;
  const first = words.slice(0, FIRST_WORDS);
  return {
    exact: [],
    words: [
      [whole(first.join(' ')), wordsOut(first, inWork).map(whole)],
      ...[words.join(''), words.map(singular).sort().join(' ')].map((w) => alone(whole(w))),
    ],
  };
}

/** The buckets of a form; what is `also` given are texts of further ones. */
export function bucketsOf(
  { type, vocabulary, parts }: Omit<Form, 'text'>,
  also: readonly string[] = [],
): Buckets {
  const own =
    parts.as === 'person'
      ? ofPerson(parts.person)
      : parts.as === 'body'
        ? ofBody(parts.body)
        : ofWork(parts.work, parts.by);
  const numbers = (texts: readonly string[]) => [
    ...new Set(texts.map((t) => textNumber(`${t} ${type} ${vocabulary}`))),
  ];
  const words = new Map(own.words);
  return {
    exact: numbers([...own.exact, ...also]),
    words: [...words].map(([word, near]) => ({ word: numbers([word])[0]!, near: numbers(near) })),
  };
}
