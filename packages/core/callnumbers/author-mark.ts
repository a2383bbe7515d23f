import { dataFields, first, type DataField, type MarcRecord } from '../marc';
import { withoutMarks } from '../text';
import type { MarkedBy } from './call-number-rule';

/** What an author mark is made of, and where that stands; '' where there is nothing in Latin letters. */
export interface MarkSource {
  readonly word: string;
  /** Tag of the field, or 880 for its partner in Latin letters. */
  readonly from: string;
}

const LATIN = /^\p{Script=Latin}/u;

/** The field, or its partner in Latin letters (880) where it has other ones itself. */
function latin(record: MarcRecord, f: DataField | undefined): { field: DataField; from: string } | null {
  if (!f) return null;
  const isLatin = (g: DataField) => LATIN.test((first(g, 'a') ?? '').replace(/[^\p{L}]/gu, ''));
  if (isLatin(f)) return { field: f, from: f.tag };
  const link = /^880-(\d\d)/.exec(first(f, '6') ?? '')?.[1];
  const partner = dataFields(record, '880').find(
    (g) => link !== undefined && (first(g, '6') ?? '').startsWith(`${f.tag}-${link}`) && isLatin(g),
  );
  return partner ? { field: partner, from: '880' } : null;
}

/** Words before a surname that do not count by themselves where the surname is entered behind them (common practice, no source). */
const PARTICLE = /^(?:al|el|at|ad|as|ed|ibn|bin|bint)[-\s'’]+(?=\p{L})/iu;

/** The surname, forename or body by which a name is filed, as one word: an Arabic article is not counted. */
function nameWord(f: DataField): string {
  const name = (first(f, 'a') ?? '').split(',')[0]!.trim();
  const isSurname = f.tag.endsWith('00') && f.ind1 !== '0';
  return isSurname ? name.replace(PARTICLE, '') : name;
}

/** The title behind its initial article, as the indicator counts it. */
function titleWord(f: DataField): string {
  const skip = f.tag.endsWith('30') ? Number(f.ind1) : Number(f.ind2);
  return [...(first(f, 'a') ?? '')].slice(skip || 0).join('');
}

/**
 * What the author mark of a record is made of: the main entry, else the title; for a biography the first person the work is about,
 * else the main entry.
 */
export function markSource(record: MarcRecord, by: MarkedBy): MarkSource {
  const field = (tag: string) => dataFields(record, tag)[0];
  const people =
    by === 'person' ? [dataFields(record, '600').find((f) => f.subfields.every((s) => s.code !== 't'))] : [];
  const names = by === 'title' ? [] : [...people, field('100'), field('110'), field('111')];
  for (const f of names) {
    if (!f) continue;
    const found = latin(record, f);
    // Who has no name in Latin letters gets a mark by hand, not that of the title.
    return found ? { word: nameWord(found.field), from: found.from } : { word: '', from: f.tag };
  }
  for (const f of [...(by === 'title' ? [] : [field('130')]), field('245')]) {
    if (!f) continue;
    const found = latin(record, f);
    return found ? { word: titleWord(found.field), from: found.from } : { word: '', from: f.tag };
  }
  return { word: '', from: '' };
}

/** Letters and digits of a word in capitals, with Mac for Mc and M' where the house files them so. */
export function markLetters(word: string, isMcAsMac: boolean): string {
  const plain = withoutMarks(word);
  const filed = isMcAsMac ? plain.replace(/^M(?:c|['’ʻ])(?=\s?\p{L})/iu, 'Mac') : plain;
  return filed.toUpperCase().replace(/[^\p{L}\p{N}]/gu, '');
}

/**
 * The LC Cutter Table (Classification and Shelflisting Manual, G 63): the second letter, by what the first is, from and to with its digit; and
 * every further letter.
 */
const VOWELS = 'bb2 dd3 lm4 nn5 pp6 rr7 st8 uy9';
const OF_S = 'aa2 ee4 hi5 mp6 tt7 uu8 wz9';
const OF_QU = 'aa3 ee4 ii5 oo6 rr7 tt8 yy9';
const CONSONANTS = 'aa3 ee4 ii5 oo6 rr7 uu8 yy9';
const EXPANSION = 'ad3 eh4 il5 mo6 ps7 tv8 wz9';
/** What follows the digit of the entry before, for a letter that is not in the table: room behind what has that digit. */
const BEHIND = '8';

/** The digits for a letter: its own, or those of the last entry before it with room behind; the first entry's before all. */
function digitsFor(table: string, letter: string): string {
  const entries = table.split(' ');
  const entry = entries.findLast((e) => e[0]! <= letter) ?? entries[0]!;
  return letter <= entry[1]! ? entry[2]! : entry[2]! + BEHIND;
}

/**
 * A Cutter number by the table of the Library of Congress, with so many digits: "Campbell" is C36. A shelf list may want another digit where two works
 * meet. Empty where there is no letter of the alphabet.
 */
export function cutterNumber(word: string, digits: number): string {
  const letters = markLetters(word, false)
    .toLowerCase()
    .replace(/[^a-z]/g, '');
  const [one, two, three] = letters;
  if (one === undefined || digits < 1) return '';
  const behind = (from: number) => [...letters.slice(from)].map((l) => digitsFor(EXPANSION, l)[0]!).join('');
  // Qa to Qt come before Qu: the table has 2 to 29 for them.
  const number =
    two === undefined
      ? '2'
      : one === 'q'
        ? two === 'u'
          ? three === undefined
            ? '3'
            : digitsFor(OF_QU, three) + behind(3)
          : `2${behind(1)}`
        : one === 's' && two === 'c'
          ? three === 'h'
            ? `3${behind(3)}`
            : `29${behind(2)}`
          : digitsFor(one === 's' ? OF_S : 'aeiou'.includes(one) ? VOWELS : CONSONANTS, two) + behind(2);
  return one.toUpperCase() + number.slice(0, digits);
}
