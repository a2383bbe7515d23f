import { alignFields } from './align';
import { digits, ENTRY_LENGTH, FIELD_END, LEADER_LENGTH } from './delimiters';
import { scanEntries } from './entries';
import type { Repair } from '../repair';

/** One field's place in a record, offsets counted from the record's first byte; `end` includes the field terminator. */
export interface Slot {
  readonly tag: string;
  readonly start: number;
  readonly end: number;
}

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

const tagAt = (bytes: Uint8Array, at: number) =>
  String.fromCharCode(bytes[at]!, bytes[at + 1]!, bytes[at + 2]!);

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
  const { end, missing } = directoryEnd(bytes, dataEnd);
  const base = missing ? end : Math.min(end + 1, dataEnd);
  if (missing) note('directory-end', 'The field terminator after the directory was missing.');
  if (base !== claimedBase)
    note('base-address', `The leader gives the base address as ${claimedBase < 0 ? 'no number' : claimedBase}; it is ${base}.`);
  const { entries, leaderLength } = scanEntries(bytes, end);
  const pieces: { start: number; end: number }[] = [];
  for (let start = base; start < dataEnd;) {
    const found = bytes.indexOf(FIELD_END, start);
    const stop = found < 0 || found >= dataEnd ? dataEnd : found + 1;
    pieces.push({ start, end: stop });
    start = stop;
  }
  const { slots, told } = alignFields(bytes, base, entries, pieces);
  if (told.length === 0 && entries.some((e) => !e.fits(base))) {
    const long = pieces.some((p) => p.end - p.start > 9999) || dataEnd > 99999;
    if (long) note('too-long', 'A field or its place is beyond what a directory can say; fields were cut at their terminators.');
    else note('directory', 'The directory did not fit the fields; they were found by their terminators.');
  }
  for (const t of told) note(t.code, t.message, t.lost === undefined && t.repaired, t.lost);
  return { slots, contiguous: false, base, leaderLength, repairs };
}

/** The end of the directory: its terminator, or the first place where entries of twelve digits stop. */
function directoryEnd(bytes: Uint8Array, dataEnd: number): { end: number; missing: boolean } {
  const first = bytes.indexOf(FIELD_END, LEADER_LENGTH);
  let at = LEADER_LENGTH;
  while (at + ENTRY_LENGTH <= dataEnd && digits(bytes, at + 3, 9) >= 0) at += ENTRY_LENGTH;
  const missing = at > LEADER_LENGTH && bytes[at] !== FIELD_END && (first < 0 || first > at + ENTRY_LENGTH);
  if (missing) return { end: at, missing };
  return { end: first < 0 || first >= dataEnd ? dataEnd : first, missing: false };
}
