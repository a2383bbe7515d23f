import { editDistance } from '../text';
import type { Description } from './description';

/** One thing that was compared: how like, from 0 to 1, and in words. */
export interface LikenessPart {
  readonly name: 'title' | 'author' | 'year' | 'publisher' | 'pages' | 'format' | 'edition';
  readonly like: number;
  readonly weight: number;
  readonly said: string;
}
/** How like two records are, 0 to 100, and by what. */
export interface Likeness {
  /** 0 to 100. */
  readonly score: number;
  readonly parts: readonly LikenessPart[];
}

/** What each thing weighs (the choice is ours, tried on the labelled pairs of the tests). */
const WEIGHT = { title: 45, author: 20, year: 12, publisher: 8, pages: 10, format: 10, edition: 5 } as const;
/** What cannot be compared, because one record does not say it, counts this much of its weight as unlike. */
const UNKNOWN = 0.15;

/**
 * How like two descriptions are, and why. What only one of them says is left out of the sum but for a small part, so that
 * two bare titles do not come out as sure as two full records.
 */
export function likeness(a: Description, b: Description): Likeness {
  return likenessAbove(a, b, 0)!;
}

/** The likeness, or null as soon as it must come out below `least`: titles take longest and are compared last. */
export function likenessAbove(a: Description, b: Description, least: number): Likeness | null {
  const beside = besideTitle(a, b);
  if (least > 0 && scoreOf([titlePart(1), ...beside]) < least) return null;
  const parts = [titlePart(titleLikeness(a, b)), ...beside];
  const score = scoreOf(parts);
  return score < least ? null : { score, parts };
}

const titlePart = (like: number): LikenessPart => ({
  name: 'title',
  like,
  weight: WEIGHT.title,
  said: like === 1 ? 'same title' : like > 0.8 ? 'nearly the same title' : 'another title',
});

function scoreOf(parts: readonly LikenessPart[]): number {
  let [sum, most] = [0, 0];
  for (const p of parts) {
    sum += p.like * p.weight;
    most += p.weight;
  }
  for (const [name, weight] of Object.entries(WEIGHT))
    if (name !== 'edition' && !parts.some((p) => p.name === name)) most += weight * UNKNOWN;
  return Math.round((100 * sum) / most);
}

function besideTitle(a: Description, b: Description): LikenessPart[] {
  const parts: LikenessPart[] = [];
  const put = (name: LikenessPart['name'], like: number | null, said: string) => {
    if (like !== null) parts.push({ name, like, weight: WEIGHT[name], said });
  };
  const author = authorLikeness(a, b);
  put('author', author, author === null ? '' : authorSaid(author));
  const years = a.year !== null && b.year !== null ? Math.abs(a.year - b.year) : null;
  put(
    'year',
    years === null ? null : years === 0 ? 1 : years === 1 ? 0.8 : years === 2 ? 0.4 : 0,
    yearSaid(a, b, years),
  );
  const publisher = publisherLikeness(a.publisher, b.publisher);
  put('publisher', publisher, publisher !== null && publisher > 0.7 ? 'same publisher' : 'another publisher');
  const pages =
    a.pages !== null && b.pages !== null ? Math.abs(a.pages - b.pages) / Math.max(a.pages, b.pages, 1) : null;
  put(
    'pages',
    pages === null ? null : pages <= 0.03 ? 1 : pages <= 0.1 ? 0.6 : 0,
    pages === 0 ? `${a.pages} pages both` : `${a.pages} and ${b.pages} pages`,
  );
  put(
    'format',
    a.carrier === b.carrier ? 1 : 0,
    a.carrier === b.carrier ? `both ${a.carrier}` : `${a.carrier} and ${b.carrier}`,
  );
  const stated = a.edition !== '' || b.edition !== '';
  put(
    'edition',
    stated ? (a.edition === b.edition ? 1 : 0) : null,
    a.edition === b.edition
      ? `same edition (${a.edition})`
      : `edition ${a.edition || 'not stated'} and ${b.edition || 'not stated'}`,
  );
  return parts;
}

const authorSaid = (like: number) =>
  like === 1 ? 'same author' : like > 0.7 ? 'author nearly the same' : 'another author';

const yearSaid = (a: Description, b: Description, years: number | null) =>
  years === 0 ? `both ${a.year}` : `${a.year} and ${b.year}`;

/** 1 for the same title with or without its subtitle, less for every letter and word that differs. */
export function titleLikeness(a: Description, b: Description): number {
  if (a.title === '' || b.title === '') return 0;
  if (a.title === b.title || a.main === b.title || a.title === b.main) return 1;
  if (a.main === b.main && a.main !== '') {
    // The same words before different subtitles: a general title (Poems, Report) says little, a long one much.
    const words = a.main.split(' ').length;
    const rest = overlap(a.title.slice(a.main.length), b.title.slice(b.main.length));
    return Math.min(0.97, 0.35 + 0.12 * words + 0.4 * rest);
  }
  return Math.max(textLikeness(a.title, b.title), 0.95 * shorterLikeness(a, b));
}

/** The likeness of a title with no subtitle with the beginning of the other. */
function shorterLikeness(a: Description, b: Description): number {
  const [short, long] = a.title.length <= b.title.length ? [a, b] : [b, a];
  return short.title === short.main && short.main.split(' ').length > 1
    ? textLikeness(short.main, long.main)
    : 0;
}

/** From 0 to 1 by letters that differ, and by words in common where their order differs. */
export function textLikeness(a: string, b: string): number {
  if (a === '' || b === '') return 0;
  const longest = Math.max(a.length, b.length);
  const limit = Math.ceil(longest * 0.4);
  const distance = editDistance(a.slice(0, 160), b.slice(0, 160), limit);
  const letters = distance > limit ? 0 : 1 - distance / longest;
  return letters >= 0.95 ? letters : Math.max(letters, 0.95 * overlap(a, b));
}

/** Words in common out of all words. */
function overlap(a: string, b: string): number {
  const [x, y] = [new Set(a.split(' ').filter(Boolean)), new Set(b.split(' ').filter(Boolean))];
  if (x.size === 0 && y.size === 0) return 1;
  let common = 0;
  for (const word of x) if (y.has(word)) common++;
  return common / (x.size + y.size - common);
}

/** Names agree when the surname does and the forenames do not contradict; null when one record names nobody. */
export function authorLikeness(a: Description, b: Description): number | null {
  if (a.author === '' && b.author === '')
    return a.others !== '' && b.others !== '' ? others(a.others, b.others) : null;
  if (a.author === '' || b.author === '') {
    const [named, other] = a.author ? [a, b] : [b, a];
    if (other.others === '') return null;
    return other.others.split(' ').includes(named.author.split(' ')[0]!) ? 1 : 0.2;
  }
  const [x, y] = [a.author.split(' '), b.author.split(' ')];
  const surname = textLikeness(x[0]!, y[0]!);
  if (surname < 0.75) {
    // Given name first in one of them, or the other is named as a further person.
    const among = (words: string[], others: string) => others.split(' ').includes(words[0]!);
    if (overlap(a.author, b.author) > 0.6) return 0.9;
    return among(x, b.others) || among(y, a.others) ? 0.7 : 0;
  }
  const contradicts = x.slice(1).some((w, i) => y[i + 1] !== undefined && y[i + 1]![0] !== w[0]);
  return contradicts ? 0.2 : surname;
}

const others = (a: string, b: string) => (overlap(a, b) > 0.3 ? 1 : 0.4);

/** Publishers' names but for the words that all of them have. */
function publisherLikeness(a: string, b: string): number | null {
  const [x, y] = [core(a), core(b)];
  if (x === '' || y === '') return null;
  if (x.startsWith(y) || y.startsWith(x)) return 1;
  return textLikeness(x, y);
}
const core = (name: string) =>
  name
    .replace(
      /\b(ltd|limited|inc|llc|co|company|press|publishing|publishers|publications|verlag|books|editions?|and|the|of)\b/g,
      ' ',
    )
    .replace(/ +/g, ' ')
    .trim();
