import { digits, FIELD_END, LEADER_LENGTH, leaderFits, looksLikeLeader, RECORD_END } from './delimiters';
import type { Repair } from '../repair';

/** Where the record that starts at `start` ends (exclusive), or null when more bytes are needed to say. */
export interface Extent {
  readonly end: number;
  readonly repairs: readonly Omit<Repair, 'offset'>[];
}

/** Bytes without any record terminator after which no more are waited for. */
export const LONGEST = 1 << 25;

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
  const terminator = bytes.indexOf(RECORD_END, start);
  if (terminator < 0 && !last && available < LONGEST) return null;
  const limit = terminator < 0 ? bytes.length : terminator + 1;
  const next = swallowedRecord(bytes, start + LEADER_LENGTH, limit);
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

const note = (code: Repair['code'], message: string) => ({ code, message, repaired: true });
const NO_TERMINATOR = note('record-terminator', 'The record terminator was missing.');

function afterBlanks(bytes: Uint8Array, from: number): number {
  let at = from;
  while (bytes[at] === 0x0a || bytes[at] === 0x0d || bytes[at] === 0x20) at++;
  return at;
}

/** The start of a record inside what seems to be this one: after a field terminator, or where a leader fits exactly. */
function swallowedRecord(bytes: Uint8Array, from: number, to: number): number {
  for (let i = from; i + LEADER_LENGTH < to; i++) {
    if (bytes[i + 10] !== 0x32 || bytes[i + 11] !== 0x32 || digits(bytes, i, 5) <= LEADER_LENGTH) continue;
    if (bytes[i - 1] === FIELD_END ? looksLikeLeader(bytes, i) : leaderFits(bytes, i)) return i;
  }
  return -1;
}
