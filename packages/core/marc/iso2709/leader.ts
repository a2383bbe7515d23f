import { digits, LEADER_LENGTH } from './delimiters';
import type { Repair } from '../repair';

type Note = (code: Repair['code'], message: string, at?: number) => void;

/**
 * The leader as it stands in the file, with what the structure fixes put right and told (MARC 21 Specifications: Record
 * Structure): two indicators, two characters of subfield code, the entry map 4500, a known character coding.
 * `length` is how many bytes it took in the file, 24 unless characters were lost or added.
 */
export function readLeader(bytes: Uint8Array, length: number, note: Note): string {
  let leader = String.fromCharCode.apply(null, bytes.subarray(0, length) as unknown as number[]);
  if (length !== LEADER_LENGTH) {
    note('leader', `The leader had ${length} of 24 characters; its parts were put in their places.`);
    leader = inPlaces(leader);
  }
  if (/[^ -~]/.test(leader)) {
    note('leader', 'The leader had characters that are not ASCII; they became blanks.');
    leader = leader.replace(/[^ -~]/g, ' ');
  }
  if (leader.slice(10, 12) !== '22' || leader.slice(20) !== '4500') {
    note(
      'leader',
      `The leader had “${leader.slice(10, 12)}” and “${leader.slice(20)}” where 22 and 4500 belong.`,
    );
    leader = `${leader.slice(0, 10)}22${leader.slice(12, 20)}4500`;
  }
  if (leader[9] !== 'a' && leader[9] !== ' ')
    note('leader', `Leader/09 had “${leader[9]}”, which is not a character coding.`, 9);
  return leader;
}

/** Puts the parts of a leader that lost or gained characters where they belong, by its two runs of digits. */
function inPlaces(text: string): string {
  const parts = /^(\d*)(\D*)2?2?(\d{0,5})(.*?)(45\d{0,2})?$/s.exec(text);
  const [, , kind = '', base = '', level = ''] = parts ?? [];
  let five = kind;
  while (five.length > 5 && five.includes(' ')) five = withoutOneBlank(five);
  while (five.length < 5) five = `${five.slice(0, -1)} ${five.slice(-1)}`;
  return `00000${five.slice(0, 5)}22${base.padStart(5, '0')}${level.padEnd(3).slice(0, 3)}4500`;
}

/** Without the blank whose place makes the rest most like what stands in 05–09: nothing in 08, and coding a in 09. */
function withoutOneBlank(text: string): string {
  const shorter = [...text].flatMap((c, i) => (c === ' ' ? [text.slice(0, i) + text.slice(i + 1)] : []));
  return shorter.find((t) => /^\S{3} a/.test(t)) ?? shorter.find((t) => /^\S{3} /.test(t)) ?? shorter[0]!;
}

/** The leader with the lengths that are true of the bytes. */
export function withLengths(leader: string, length: number, base: number): string {
  const number = (n: number) => String(Math.min(n, 99999)).padStart(5, '0');
  return number(length) + leader.slice(5, 12) + number(base) + leader.slice(17);
}

/** Whether the record's first five bytes and 12–16 say this. */
export const saysLengths = (bytes: Uint8Array, length: number, base: number): boolean =>
  digits(bytes, 0, 5) === length && digits(bytes, 12, 5) === base;
