import { digits, FIELD_END, LEADER_LENGTH, leaderFits, looksLikeLeader, RECORD_END } from './delimiters';
import type { Repair } from '../repair';

/** Where the record that starts at `start` ends (exclusive), or null when more bytes are needed to say. */
export interface Extent {
  readonly end: number;
  readonly repairs: readonly Omit<Repair, 'offset'>[];
}

/** Bytes without any record terminator after which no more are waited for. */
export const LONGEST = 1 << 25;

/** Where the record at `start` ends when a leader stands there and its length is right; 0 when it has to be looked at closer. */
export function plainEnd(bytes: Uint8Array, start: number): number {
  const length = digits(bytes, start, 5);
  if (length <= LEADER_LENGTH || length >= 99999 || start + length > bytes.length) return 0;
  const end = start + length;
  if (bytes[end - 1] !== RECORD_END || !looksLikeLeader(bytes, start)) return 0;
  return bytes.indexOf(RECORD_END, start) === end - 1 ? end : 0;
}

/**
 * Finds the end of a record: by its length when a terminator stands there, else by what the bytes show.
 * `last` says that no more bytes will come.
 */
export function recordExtent(bytes: Uint8Array, start: number, last: boolean): Extent | null {
  const claimed = digits(bytes, start, 5);
  const available = bytes.length - start;
  if (claimed > LEADER_LENGTH && claimed < 99999) {
    if (available < claimed && !last) return null;
    const end = start + claimed;
    if (bytes[end - 1] === RECORD_END) {
      const inner = bytes.indexOf(RECORD_END, start);
      if (inner === end - 1 || !looksLikeLeader(bytes, afterBlanks(bytes, inner + 1)))
        return { end, repairs: [] };
    } else if (bytes[end - 1] === FIELD_END) {
      if (bytes.length < end + LEADER_LENGTH && !last) return null;
      if (looksLikeLeader(bytes, end)) return { end, repairs: [NO_TERMINATOR] };
    }
  }
  const first = bytes.indexOf(RECORD_END, start);
  const further = first < 0 ? first : beyondStray(bytes, start, first, claimed, last);
  if (further === null) return null;
  const terminator = further;
  if (terminator < 0 && !last && available < LONGEST) return null;
  const limit = terminator < 0 ? bytes.length : terminator + 1;
  const next = swallowedRecord(bytes, start, limit);
  if (next > 0) {
    if (bytes[next - 1] === FIELD_END) return { end: next, repairs: [NO_TERMINATOR] };
    return { end: next, repairs: [note('truncated', 'The record breaks off and the next one begins.')] };
  }
  if (terminator < 0) {
    const said = claimed > 0 ? ` The leader says ${claimed} bytes, ${available} were there.` : '';
    return { end: limit, repairs: [note('truncated', `The file ends inside the record.${said}`)] };
  }
  const length = limit - start;
  if (claimed === length) return { end: limit, repairs: [] };
  if (length > 99999)
    return {
      end: limit,
      repairs: [
        note('too-long', `The record is ${length} bytes long; ISO 2709 can say 99,999. It was read whole.`),
      ],
    };
  const said = claimed < 0 ? 'no number' : String(claimed);
  return {
    end: limit,
    repairs: [note('record-length', `The leader gives the record length as ${said}; it is ${length} bytes.`)],
  };
}

/** Characters that a record may have gained or lost besides a terminator inside it. */
const SLACK = 8;

/**
 * The terminator that ends the record: the first one, unless no record begins behind it while about where the length says
 * there is another with a record, or the end of the file, behind it. Null when more bytes are needed to say.
 */
function beyondStray(
  bytes: Uint8Array,
  start: number,
  first: number,
  claimed: number,
  last: boolean,
): number | null {
  const end = start + claimed;
  if (claimed >= 99999 || end - SLACK <= first + 1) return first;
  if (bytes.length < end + SLACK + LEADER_LENGTH && !last) return null;
  const isEnd = (at: number) => {
    const next = afterBlanks(bytes, at + 1);
    return next >= bytes.length || looksLikeLeader(bytes, next);
  };
  if (isEnd(first)) return first;
  for (let at = first; at >= 0 && at < end + SLACK; at = bytes.indexOf(RECORD_END, at + 1))
    if (at + 1 >= end - SLACK && isEnd(at)) return at;
  return first;
}

const note = (code: Repair['code'], message: string) => ({ code, message, repaired: true });
const NO_TERMINATOR = note('record-terminator', 'The record terminator was missing.');

function afterBlanks(bytes: Uint8Array, from: number): number {
  let at = from;
  while (bytes[at] === 0x0a || bytes[at] === 0x0d || bytes[at] === 0x20) at++;
  return at;
}

/**
 * The start of a record inside what seems to be this one: after a field terminator, or where a leader fits exactly. Within
 * the first 24 bytes, which are a leader that breaks off, only the latter.
 */
function swallowedRecord(bytes: Uint8Array, start: number, to: number): number {
  for (let i = start + 1; i + LEADER_LENGTH < to; i++) {
    if (bytes[i + 10] !== 0x32 || bytes[i + 11] !== 0x32 || digits(bytes, i, 5) <= LEADER_LENGTH) continue;
    const behindField = i >= start + LEADER_LENGTH && bytes[i - 1] === FIELD_END;
    if (behindField ? looksLikeLeader(bytes, i) : leaderFits(bytes, i)) return i;
  }
  return -1;
}
