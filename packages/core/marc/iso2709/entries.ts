import { digits, ENTRY_LENGTH, FIELD_END, LEADER_LENGTH } from './delimiters';

/** One entry of a directory that may be damaged; -1 for a number that cannot be read. */
export interface Entry {
  readonly tag: string;
  readonly length: number;
  readonly claimed: number;
  readonly order: number;
  /** Whether a field stands where the entry says, given the base address. */
  fits(base: number): boolean;
}

/** Reads the entries before `end`; where characters were lost or added, it finds its way by the running offsets. */
export function scanEntries(bytes: Uint8Array, end: number): { entries: Entry[]; leaderLength: number } {
  const leaderLength = whereItStarts(bytes, end);
  const entries: Entry[] = [];
  let expected = 0;
  const whole = (end - leaderLength) % ENTRY_LENGTH === 0;
  for (let at = leaderLength; at + 3 <= end;) {
    if (!whole) at = resynchronised(bytes, at, end, expected);
    const length = at + 7 <= end ? digits(bytes, at + 3, 4) : -1;
    const claimed = at + ENTRY_LENGTH <= end ? digits(bytes, at + 7, 5) : -1;
    entries.push({
      tag: String.fromCharCode(bytes[at]!, bytes[at + 1]!, bytes[at + 2]!),
      length,
      claimed,
      order: entries.length,
      fits: (base) =>
        length > 0 &&
        claimed >= 0 &&
        bytes[base + claimed + length - 1] === FIELD_END &&
        bytes[base + claimed - 1] === FIELD_END,
    });
    expected = claimed >= 0 && length > 0 ? claimed + length : -1;
    at += ENTRY_LENGTH;
  }
  return { entries, leaderLength };
}

const isEntry = (bytes: Uint8Array, at: number) => digits(bytes, at + 3, 9) >= 0 && isTag(bytes, at);
const isTag = (bytes: Uint8Array, at: number) =>
  /^[0-9A-Za-z]{3}$/.test(String.fromCharCode(bytes[at]!, bytes[at + 1]!, bytes[at + 2]!));

/** 24, or where entries of twelve begin when the leader lost or gained characters. */
function whereItStarts(bytes: Uint8Array, end: number): number {
  if ((end - LEADER_LENGTH) % ENTRY_LENGTH === 0) return LEADER_LENGTH;
  if (digits(bytes, LEADER_LENGTH + 7, 5) === 0 && isEntry(bytes, LEADER_LENGTH)) return LEADER_LENGTH;
  for (const from of [23, 25, 22, 26, 21, 27, 20, 28]) {
    if ((end - from) % ENTRY_LENGTH !== 0 || end <= from) continue;
    let all = true;
    for (let at = from; at < end && all; at += ENTRY_LENGTH) all = isEntry(bytes, at);
    if (all) return from;
  }
  return LEADER_LENGTH;
}

/** The nearest place at or after `at` (or just before it) whose entry begins at the expected offset. */
function resynchronised(bytes: Uint8Array, at: number, end: number, expected: number): number {
  if (expected >= 0)
    for (const shift of [0, 1, -1, 2, -2, 3, -3, 4, 5, 6, 7, 8, 9, 10, 11])
      if (at + shift + ENTRY_LENGTH <= end && isEntry(bytes, at + shift) && digits(bytes, at + shift + 7, 5) === expected)
        return at + shift;
  return at;
}
