import { LONGEST } from './extent';
import {
  digits,
  FIELD_END,
  LEADER_LENGTH,
  leaderFits,
  looksLikeLeader,
  mayFitWithMore,
  RECORD_END,
} from './delimiters';
import type { Repair } from '../repair';

/** What stands before the next record and is none of it. */
export interface Junk {
  /** Where the next record seems to begin; the end of the bytes when none does. */
  readonly next: number;
  readonly repairs: readonly Repair[];
  /** More bytes are needed to say. */
  readonly unsure: boolean;
}

/** What is said of terminators in a row. */
export const TERMINATOR_AGAIN = 'A record terminator stood there more than once; one was kept.';

/** Passes over a byte order mark, line ends, NULs, doubled terminators and anything else before a leader that fits. */
export function skipJunk(bytes: Uint8Array, from: number, atStart: boolean, last: boolean): Junk {
  const repairs: Repair[] = [];
  let at = from;
  if (atStart && bytes[at] === 0xef && bytes[at + 1] === 0xbb && bytes[at + 2] === 0xbf) {
    repairs.push(told('byte-order-mark', at, 'A byte order mark was left out.'));
    at += 3;
  }
  for (let start = at; at < bytes.length && !looksLikeLeader(bytes, at); start = at) {
    while (BLANK.has(bytes[at]!)) at++;
    // Line ends after the last record are how text editors end a file.
    if (at >= bytes.length) break;
    if (at > start)
      repairs.push(
        told(
          'junk-between',
          start,
          `${bytesOf(at - start)} of blanks or line ends between records were left out.`,
        ),
      );
    start = at;
    while (bytes[at] === RECORD_END) at++;
    if (at > start) repairs.push(told('record-terminator', start, TERMINATOR_AGAIN));
    start = at;
    while (bytes[at] === 0) at++;
    if (at > start)
      repairs.push(told('nul-bytes', start, `${bytesOf(at - start)} NUL between records were left out.`));
    if (at === start && !BLANK.has(bytes[at]!)) break;
  }
  const sure = digits(bytes, at, 5) >= 0 && looksLikeLeader(bytes, at);
  if (at >= bytes.length || sure) return { next: at, repairs, unsure: false };
  const terminator = bytes.indexOf(RECORD_END, at);
  if (terminator < 0 && !last && bytes.length - at < LONGEST) return { next: at, repairs, unsure: true };
  const limit = terminator < 0 ? bytes.length : terminator;
  const field = bytes.indexOf(FIELD_END, at);
  // What has a field terminator may be a record with a damaged leader, unless it is too short for one.
  const before = Math.min(limit, field < 0 ? limit : field) - LEADER_LENGTH;
  const to = Math.max(before, Math.min(at + LEADER_LENGTH, limit - LEADER_LENGTH));
  for (let i = at + 1; i <= to; i++) {
    if (!last && mayFitWithMore(bytes, i)) return { next: at, repairs, unsure: true };
    if (!leaderFits(bytes, i)) continue;
    const dropped = bytes.slice(at, i);
    repairs.push({
      ...told('junk-between', at, `${bytesOf(i - at)} before a record belong to none; they are kept apart.`),
      repaired: false,
      bytes: dropped,
    });
    return { next: i, repairs, unsure: false };
  }
  return { next: at, repairs, unsure: false };
}

/** Line feed, carriage return, tab, blank, end-of-file mark. */
const BLANK = new Set([0x0a, 0x0d, 0x09, 0x20, 0x1a]);
const told = (code: Repair['code'], offset: number, message: string): Repair => ({
  code,
  offset,
  message,
  repaired: true,
});
const bytesOf = (n: number) => (n === 1 ? 'One byte' : `${n} bytes`);
