import type { Slot } from './slot';
import { alignFields } from './align';
import { digits, ENTRY_LENGTH, FIELD_END, LEADER_LENGTH } from './delimiters';
import { tagAt } from './tag-at';
import { scanEntries, whereItStarts } from './entries';
import type { Repair } from '../repair';

/** A directory as it was read. */
export interface Directory {
  readonly slots: readonly Slot[];
  /** Every slot follows on the one before, so that cutting at terminators gives the same fields. */
  readonly contiguous: boolean;
  readonly base: number;
  /** Bytes of the leader before the directory: 24 unless some were lost or added. */
  readonly leaderLength: number;
  readonly repairs: readonly Omit<Repair, 'offset'>[];
}

/** Reads leader/12–16 and the directory; where they do not fit, the directory is laid along the fields as they are. */
export function readDirectory(bytes: Uint8Array, dataEnd: number): Directory {
  const base = digits(bytes, 12, 5);
  const fits =
    base > LEADER_LENGTH &&
    base <= dataEnd &&
    bytes[base - 1] === FIELD_END &&
    (base - 1 - LEADER_LENGTH) % ENTRY_LENGTH === 0 &&
    bytes.indexOf(FIELD_END, LEADER_LENGTH) === base - 1;
  return (fits && asItStands(bytes, base, dataEnd)) || mendedDirectory(bytes, base, dataEnd);
}

/** The directory when every entry points at a field between terminators; null otherwise. */
function asItStands(bytes: Uint8Array, base: number, dataEnd: number): Directory | null {
  const slots: Slot[] = [];
  let next = base;
  let contiguous = true;
  for (let at = LEADER_LENGTH; at < base - 1; at += ENTRY_LENGTH) {
    const length = digits(bytes, at + 3, 4);
    const start = digits(bytes, at + 7, 5);
    const from = base + start;
    const end = from + length;
    if (length < 1 || start < 0 || end > dataEnd || bytes[end - 1] !== FIELD_END) return null;
    if (from > base && bytes[from - 1] !== FIELD_END) return null;
    if (from !== next) contiguous = false;
    next = end;
    slots.push({ tag: tagAt(bytes, at), start: from, end });
  }
  if (!contiguous && !coversAll(slots, base, dataEnd)) return null;
  if (contiguous && next !== dataEnd) return null;
  return { slots, contiguous, base, leaderLength: LEADER_LENGTH, repairs: [] };
}

/** Whether fields in another order than their entries leave no byte of the data out. */
function coversAll(slots: readonly Slot[], base: number, dataEnd: number): boolean {
  let reached = base;
  for (const s of [...slots].sort((a, b) => a.start - b.start)) {
    if (s.start > reached) return false;
    reached = Math.max(reached, s.end);
  }
  return reached === dataEnd;
}

function mendedDirectory(bytes: Uint8Array, claimedBase: number, dataEnd: number): Directory {
  const repairs: Omit<Repair, 'offset'>[] = [];
  const note = (code: Repair['code'], message: string, repaired = true, lost?: Uint8Array) =>
    repairs.push({ code, message, repaired, ...(lost && { bytes: lost }) });
  const leaderLength = whereItStarts(bytes, bytes.indexOf(FIELD_END, LEADER_LENGTH));
  const beyond = endBeyondStray(bytes, leaderLength, claimedBase, dataEnd);
  const { end, base, missing } = beyond ?? directoryEnd(bytes, leaderLength, dataEnd);
  if (beyond) note('directory', 'The directory had a field terminator inside.');
  if (missing) note('directory-end', 'The field terminator after the directory was missing.');
  if (base !== claimedBase)
    note(
      'base-address',
      `The leader gives the base address as ${claimedBase < 0 ? 'no number' : claimedBase}; it is ${base}.`,
    );
  const pieces: { start: number; end: number }[] = [];
  for (let start = base; start < dataEnd;) {
    const found = bytes.indexOf(FIELD_END, start);
    const stop = found < 0 || found >= dataEnd ? dataEnd : found + 1;
    pieces.push({ start, end: stop });
    start = stop;
  }
  const listed = beyond ? withoutStrays(bytes.subarray(0, end), leaderLength) : bytes.subarray(0, end);
  const whole = (listed.length - leaderLength) % ENTRY_LENGTH === 0;
  if (!whole) note('directory', 'The directory had characters too many or too few.');
  const entries = scanEntries(listed, leaderLength, listed.length, whole ? null : saidOf(pieces, base));
  const { slots, told } = alignFields(bytes, base, entries, pieces);
  if (whole && told.length === 0 && entries.some((e) => !e.fits(bytes, base))) {
    const long = pieces.some((p) => p.end - p.start > 9999) || dataEnd > 99999;
    if (long)
      note(
        'too-long',
        'A field or its place is beyond what a directory can say; fields were cut at their terminators.',
      );
    else note('directory', 'The directory did not fit the fields; they were found by their terminators.');
  }
  for (const t of told) note(t.code, t.message, t.lost === undefined && t.repaired, t.lost);
  return { slots, contiguous: false, base, leaderLength, repairs };
}

/** What a right directory says of each piece: four digits of length and five of place. */
const saidOf = (pieces: readonly { start: number; end: number }[], base: number): Set<string> =>
  new Set(
    pieces.map((p) => String(p.end - p.start).padStart(4, '0') + String(p.start - base).padStart(5, '0')),
  );

interface DirectoryEnd {
  readonly end: number;
  readonly base: number;
  readonly missing: boolean;
}

/** The end that the base address gives, where a terminator before it has nothing but the rest of a directory behind it. */
function endBeyondStray(
  bytes: Uint8Array,
  leaderLength: number,
  claimed: number,
  dataEnd: number,
): DirectoryEnd | null {
  const first = bytes.indexOf(FIELD_END, leaderLength);
  for (const base of [claimed, claimed + 1]) {
    if (first < 0 || base <= first + 1 || base > dataEnd || bytes[base - 1] !== FIELD_END) continue;
    const rest = bytes.subarray(first + 1, base - 1);
    if (rest.every(isOfEntry)) return { end: base - 1, base, missing: false };
  }
  return null;
}

/** Leader and directory without the terminators inside; where they stand for lost digits, with noughts instead. */
function withoutStrays(listed: Uint8Array, from: number): Uint8Array {
  const clean = listed.filter((b) => b !== FIELD_END);
  if ((clean.length - from) % ENTRY_LENGTH === 0) return clean;
  return listed.map((b) => (b === FIELD_END ? 0x30 : b));
}

/** A digit or letter, or a terminator that is not where one belongs. */
const isOfEntry = (b: number) =>
  (b >= 0x30 && b <= 0x39) || (b >= 0x41 && b <= 0x5a) || (b >= 0x61 && b <= 0x7a) || b === FIELD_END;

/** Where the directory ends and the data begin. A missing or overwritten terminator shows by the length of the first field. */
function directoryEnd(bytes: Uint8Array, leaderLength: number, dataEnd: number): DirectoryEnd {
  const first = bytes.indexOf(FIELD_END, leaderLength);
  let at = leaderLength;
  while (at + ENTRY_LENGTH <= dataEnd && digits(bytes, at + 3, 9) >= 0) at += ENTRY_LENGTH;
  const length = digits(bytes, leaderLength + 3, 4);
  if (at > leaderLength && bytes[at] !== FIELD_END && (first === at + length - 1 || first === at + length))
    return { end: at, base: first + 1 - length, missing: true };
  if (first < 0 || first >= dataEnd) return { end: dataEnd, base: dataEnd, missing: false };
  return { end: first, base: first + 1, missing: false };
}
