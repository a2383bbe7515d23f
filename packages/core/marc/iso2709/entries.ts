import { digits, ENTRY_LENGTH, FIELD_END, LEADER_LENGTH } from './delimiters';

/** One entry of a directory that may be damaged; -1 for a number that cannot be read. */
export interface Entry {
  readonly tag: string;
  readonly length: number;
  readonly claimed: number;
  readonly order: number;
  /** Whether a field stands in the record where the entry says, given the base address. */
  fits(record: Uint8Array, base: number): boolean;
}

/**
 * Reads the entries between `from` and `end`. Where characters were lost or added, `right` (the nine digits that would be
 * right for each field) shows where the next whole entry begins.
 */
export function scanEntries(
  bytes: Uint8Array,
  from: number,
  end: number,
  right: ReadonlySet<string> | null,
): Entry[] {
  const entries: Entry[] = [];
  for (let at = from; at + 3 <= end;) {
    const next = right ? nextRight(bytes, at, end, right) : at + ENTRY_LENGTH;
    entries.push(entryAt(bytes, at, Math.min(next, end), entries.length));
    at = next;
  }
  return entries;
}

function entryAt(bytes: Uint8Array, at: number, end: number, order: number): Entry {
  const whole = end - at === ENTRY_LENGTH;
  const length = whole ? digits(bytes, at + 3, 4) : -1;
  const claimed = whole ? digits(bytes, at + 7, 5) : -1;
  return {
    tag: String.fromCharCode(bytes[at]!, bytes[at + 1]!, bytes[at + 2]!),
    length,
    claimed,
    order,
    fits: (record, base) =>
      length > 0 &&
      claimed >= 0 &&
      record[base + claimed + length - 1] === FIELD_END &&
      record[base + claimed - 1] === FIELD_END,
  };
}

/** Where the entry after the one at `at` begins: twelve on if this one is right, else before the next that is. */
function nextRight(bytes: Uint8Array, at: number, end: number, right: ReadonlySet<string>): number {
  const isRight = (from: number) =>
    from + ENTRY_LENGTH <= end &&
    isEntry(bytes, from) &&
    right.has(String.fromCharCode(...bytes.subarray(from + 3, from + ENTRY_LENGTH)));
  if (isRight(at)) return at + ENTRY_LENGTH;
  // A few characters too many before numbers that are right: they belong to this entry, whose tag comes first.
  for (let more = 1; more <= 3; more++) if (isRight(at + more)) return at + more + ENTRY_LENGTH;
  for (let next = at + ENTRY_LENGTH - 3; next <= at + ENTRY_LENGTH + 3; next++)
    if (isRight(next)) return next;
  return at + ENTRY_LENGTH;
}

const isEntry = (bytes: Uint8Array, at: number) => digits(bytes, at + 3, 9) >= 0 && isTag(bytes, at);
const isTag = (bytes: Uint8Array, at: number) =>
  /^[0-9A-Za-z]{3}$/.test(String.fromCharCode(bytes[at]!, bytes[at + 1]!, bytes[at + 2]!));

/** 24, or where a run of entries that follow each other begins when the leader lost or gained characters. */
export function whereItStarts(bytes: Uint8Array, end: number): number {
  if ((end - LEADER_LENGTH) % ENTRY_LENGTH === 0) return LEADER_LENGTH;
  const follows = (from: number) => {
    let expected = 0;
    for (let at = from; at < end; at += ENTRY_LENGTH) {
      if (!isEntry(bytes, at) || digits(bytes, at + 7, 5) !== expected) return false;
      expected += digits(bytes, at + 3, 4);
    }
    return (end - from) % ENTRY_LENGTH === 0 && end > from;
  };
  return [23, 25, 22, 26, 21, 27, 20, 28].find(follows) ?? LEADER_LENGTH;
}
