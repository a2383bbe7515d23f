import type { Body } from './body';
import type { Form } from './forms';
import { sounded, spelled } from './name-parts';
import type { NamedPerson } from './person';
import { singular, type TitledWork } from './work';

/** A word with each of its letters left out: two that differ by one letter share one of these. */
const lettersOut = (word: string): string[] =>
  word.length < 5
    ? [word]
    : [word, ...Array.from({ length: word.length }, (_, i) => word.slice(0, i) + word.slice(i + 1))];

function ofPerson({ surname, core, given }: NamedPerson): string[] {
  const initial = given[0]?.[0] ?? '';
  const crossed = [...surname.split(' '), ...given].filter(Boolean).sort().join(' ');
  if (surname === '')
    return [
      `direct ${given.join(' ')}`,
      ...lettersOut(given.join(''))
        .slice(1, 40)
        .map((w) => `direct ${w}`),
      `all ${crossed}`,
    ];
  const parts = surname.split(' ').filter((p) => p.length > 3);
  const words = new Set([...lettersOut(core), spelled(core), ...(parts.length > 1 ? parts : [])]);
  return [
    ...[...words].map((w) => `${w} ${initial}`),
    ...(core.length >= 4 ? [`sound ${sounded(core)} ${initial}`] : []),
    `all ${crossed}`,
  ];
}

/** Words with each of them left out, those of one word by its letters. */
function wordsOut(words: readonly string[]): string[] {
  const [only = ''] = words;
  if (words.length < 2) return lettersOut(only);
  return [words.join(' '), ...words.map((_, i) => `${i}:${words.filter((__, k) => k !== i).join(' ')}`)];
}

const LEGAL = /\b(?:incorporated|limited|company|corporation|llc|plc)\b/g;
function ofBody({ words, units }: Body): string[] {
  const bare = words.join(' ').replace(LEGAL, '').replace(/\s+/g, ' ').trim();
  const acronym = words.length > 2 ? words.map((w) => w[0]).join('') : words.length === 1 ? words[0]! : '';
  return [
    ...wordsOut(words.slice(0, 12)),
    `bare ${bare}`,
    `sorted ${[...words].sort().join(' ')}`,
    `unit ${(units.at(-1) ?? []).join(' ')}`,
    ...(acronym ? [`acronym ${acronym}`] : []),
  ];
}

/** What a name is told by roughly, before a title. */
const nameStem = (by: NamedPerson | Body | null): string =>
  by === null ? '' : 'surname' in by ? sounded(by.core || by.given.join('')) : (by.words[0] ?? '');

function ofWork({ main, parts }: TitledWork, by: NamedPerson | Body | null): string[] {
  const stem = nameStem(by);
  const words = main.split(' ');
  const rest = parts
    .map((p) => p.slice(2))
    .sort()
    .join('|')
    .replaceAll(' | ', '|');
  const divided = rest.split('|').sort().join('|');
  const one = words.map(singular).sort().join(' ');
  return [...wordsOut(words.slice(0, 12)), words.join(''), one].map(
    (w) => `${stem} ${w} ${by ? '' : divided}`,
  );
}

/** The buckets in which a form is compared with others; two that share none are not alike. */
export function bucketsOf({ type, vocabulary, parts }: Omit<Form, 'text'>): string[] {
  const own =
    parts.as === 'person'
      ? ofPerson(parts.person)
      : parts.as === 'body'
        ? ofBody(parts.body)
        : ofWork(parts.work, parts.by);
  return [...new Set(own)].map((b) => `${type} ${vocabulary} ${b}`);
}
