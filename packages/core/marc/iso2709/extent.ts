import { digits, FIELD_END, LEADER_LENGTH, looksLikeLeader, RECORD_END } from './delimiters';
import type { Repair } from '../repair';

/** Where the record that starts at `start` ends (exclusive), or null when more bytes are needed to say. */
export interface Extent {
  readonly end: number;
  readonly repairs: readonly Omit<Repair, 'offset'>[];
}

/**
 * Finds the end of a record: by its length when a terminator stands there, else by what the bytes show.
 * `last` says that no more bytes will come.
 */
export function recordExtent(bytes: Uint8Array, start: number, last: boolean): Extent | null {
  const claimed = digits(bytes, start, 5);
  const available = bytes.length - start;
  if (claimed >= LEADER_LENGTH && claimed < 99999) {
    if (available < claimed && !last) return null;
    if (bytes[start + claimed - 1] === RECORD_END) return { end: start + claimed, repairs: [] };
    if (bytes[start + claimed - 1] === FIELD_END && looksLikeLeader(bytes, start + claimed))
      return {
        end: start + claimed,
        repairs: [note('record-terminator', 'The record terminator was missing.')],
      };
  }
  const terminator = bytes.indexOf(RECORD_END, start);
  if (terminator < 0 && !last) return null;
  const limit = terminator < 0 ? bytes.length : terminator + 1;
  const swallowed = leaderAfterField(bytes, start + LEADER_LENGTH, limit);
  if (swallowed > 0)
    return { end: swallowed, repairs: [note('record-terminator', 'The record terminator was missing.')] };
  if (terminator < 0) {
    const said = claimed > 0 ? ` The leader says ${claimed} bytes, ${available} were there.` : '';
    return { end: limit, repairs: [note('truncated', `The file ends inside the record.${said}`)] };
  }
  const length = limit - start;
  if (claimed === length || (claimed >= 99999 && length >= 99999)) return { end: limit, repairs: [] };
  const said = claimed < 0 ? 'no number' : String(claimed);
  return {
    end: limit,
    repairs: [note('record-length', `The leader gives the record length as ${said}; it is ${length} bytes.`)],
  };
}

const note = (code: Repair['code'], message: string) => ({ code, message, repaired: true });

function leaderAfterField(bytes: Uint8Array, from: number, to: number): number {
  for (
    let i = bytes.indexOf(FIELD_END, from);
    i >= 0 && i + LEADER_LENGTH < to;
    i = bytes.indexOf(FIELD_END, i + 1)
  )
    if (digits(bytes, i + 1, 5) > LEADER_LENGTH && looksLikeLeader(bytes, i + 1)) return i + 1;
  return -1;
}
