import { withoutMarks } from '../text';

/** What one part behind the class of a call number is. */
export type PartKind = 'cutter' | 'year' | 'number' | 'volume' | 'copy' | 'word';

/** A part behind the class of a call number. */
export interface BehindClass {
  readonly kind: PartKind;
  /** As written, blanks around it left out. */
  readonly text: string;
  /** Its place among others that may stand there; compares as bytes. */
  readonly key: string;
}

/** Words before the number of a volume, part or copy (common practice, no source). */
const OF_COPY = 'C|COP|COPY|EX';
const OF_VOLUME =
  'VOLUMES|VOLUME|VOLS|VOL|V|NUMBER|NOS|NO|NR|N|PARTS|PART|PTS|PT|P|BOOK|BKS|BK|BAND|BD|TOME|TOM|T|SERIES|SERIE|SER|S|SECTION|SECT|SEC|SUPPLEMENT|SUPPL|SUP|FASC|HEFT|HFT|CHAPTER|CH|REEL|DISCS|DISC|DISK|CD|DVD|JAHRG|JG|UNIT|LIEFERUNG|LFG|ISSUE|APPENDIX|APP';
/** A word, then its number: with a full stop, or with a blank where the word has several letters. */
const DESIGNATED = new RegExp(
  `^((?:(${OF_COPY})|${OF_VOLUME})(?:\\.\\s*|(?<=[A-Z]{2})\\s+|(?<=[VC])\\s+))(\\d+)([A-Z]*)(?![\\p{L}\\d])`,
  'u',
);
/** The same without anything between, where the small letter says that it is no cutter ("QA76 .D3 v2"). */
const SMALL_DESIGNATED = /^(?:(c)|[vtp]|no|pt|bd|vol)(\d+)(?![\p{L}\d])/u;
const NUMBER = /^(\d+)(\p{Lu}{0,3})(?![\p{L}\d])/u;
/** Letters, digits that are decimals, a work mark; several may follow each other without a blank. */
const CUTTER = /^([A-Z]{1,3})(\d+)([A-Z]*?)(?=[A-Z]\d|[^\p{L}\d]|$)/u;
const WORD = /^\p{L}[\p{L}\p{N}'’ʹʻʼ]*/u;
const IS_YEAR = /^(1[0-9]|20)\d\d$/;

/** Behind every other mark a work mark may be told from what stands in the next part: D548m is before D5481, and behind D548. */
const WORK_MARK = '!';

/**
 * The parts that stand behind the class: cutters (their digits are decimals), years and numbers, volumes and copies by value, words.
 * (LC Classification and Shelflisting Manual, G 60 "nothing before something", G 63 cutters as decimals.)
 */
export function partsBehind(text: string): BehindClass[] {
  const plain = withoutMarks(text);
  const hasCapitals = /\p{Lu}/u.test(plain);
  const upper = plain.toUpperCase();
  const found: BehindClass[] = [];
  let at = 0;
  const take = (kind: PartKind, length: number, key: string) => {
    found.push({ kind, text: plain.slice(at, at + length).trim(), key });
    at += length;
  };
  while (at < upper.length) {
    const rest = upper.slice(at);
    const behindLetter = at > 0 && /\p{L}/u.test(upper[at - 1]!);
    const small = hasCapitals && !behindLetter ? SMALL_DESIGNATED.exec(plain.slice(at)) : null;
    const named = behindLetter ? null : DESIGNATED.exec(rest);
    const number = NUMBER.exec(rest);
    const cutter = CUTTER.exec(rest);
    const word = WORD.exec(rest);
    if (small) take(small[1] ? 'copy' : 'volume', small[0].length, designation(small[0], small[2]!));
    else if (named)
      take(named[2] ? 'copy' : 'volume', named[0].length, designation(named[1]!, named[3]! + named[4]!));
    else if (number)
      take(IS_YEAR.test(number[1]!) ? 'year' : 'number', number[0].length, byValue(number[1]!) + number[2]!);
    else if (cutter)
      take(
        'cutter',
        cutter[0].length,
        cutter[1]! + plainDecimals(cutter[2]!) + (cutter[3] ? WORK_MARK + cutter[3] : ''),
      );
    else if (word)
      take('word', word[0].length, word[0].replace(/[^\p{L}\p{N}]/gu, '').replace(/\d+/g, byValue));
    else at += 1;
  }
  return found;
}

/** Decimals without the noughts at their end, which change nothing of their value. */
export const plainDecimals = (digits: string): string => digits.replace(/0+$/, '');

const designation = (word: string, number: string): string =>
  `${word.toUpperCase().replace(/[^A-Z]/g, '')[0]!} ${number.replace(/^\d+/, byValue)}`;

/** Before a volume and a copy at the end of a call number: they count when all else is equal, a volume before a copy. */
const VOLUME = '\u001f';
const COPY = '\u001e';
/** Without a copy number it is the first copy. */
const FIRST_COPY = '000001';

/** Keys of volumes, parts and the copy that end a call number. */
const endKey = (volumes: readonly string[], copies: readonly string[]): string =>
  [
    ...volumes.map((key) => VOLUME + key),
    ...copies.filter((number) => number !== FIRST_COPY).map((number) => COPY + number),
  ].join('');

/** Key of parts behind a class: each behind a blank, volumes and copy at the end behind all else. */
export function keyOfParts(parts: readonly BehindClass[]): string {
  const last = parts.findLastIndex((p) => p.kind !== 'volume' && p.kind !== 'copy') + 1;
  const [body, end] = [parts.slice(0, last), parts.slice(last)];
  const keysOf = (kind: PartKind) => end.filter((p) => p.kind === kind).map((p) => p.key);
  const copies = keysOf('copy').map((key) => key.slice(key.indexOf(' ') + 1));
  return body.map((p) => ` ${p.key}`).join('') + endKey(keysOf('volume'), copies);
}

/** Keys of the parts of a text, each behind a blank. */
export const keyBehind = (text: string): string => keyOfParts(partsBehind(text));

const ENDS_IN = /^(.*\S)\s+([vc])\.\s*(\d+)$/is;

/** A text without the volume and copy at its end, and their key: for call numbers that are not taken apart. */
export function cutEnd(text: string): { readonly body: string; readonly end: string } {
  let body = text.trim();
  const found: Record<string, string[]> = { v: [], c: [] };
  for (let at = ENDS_IN.exec(body); at; at = ENDS_IN.exec(body)) {
    found[at[2]!.toLowerCase()]!.unshift(byValue(at[3]!));
    body = at[1]!;
  }
  return { body, end: endKey(found.v!, found.c!) };
}

/** Digits so that they sort by value among others; runs of more than six sort behind those. */
export function byValue(digits: string): string {
  const plain = digits.replace(/^0+(?=\d)/, '');
  return plain.length <= 6
    ? plain.padStart(6, '0')
    : `:${String.fromCharCode(48 + Math.min(70, plain.length))}${plain}`;
}

/** Text in which runs of digits sort by value, punctuation does not count and case neither. */
export const numbersPadded = (text: string): string =>
  text
    .toUpperCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
    .replace(/\d+/g, byValue);
