import { digits, ENTRY_LENGTH, FIELD_END, LEADER_LENGTH } from './delimiters';
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
  readonly repairs: readonly Omit<Repair, 'offset'>[];
}

/** Reads leader/12–16 and the directory; what does not fit is cut anew at the field terminators, and told. */
export function readDirectory(bytes: Uint8Array, dataEnd: number): Directory {
  const repairs: Omit<Repair, 'offset'>[] = [];
  const note = (code: Repair['code'], message: string, repaired = true) =>
    repairs.push({ code, message, repaired });
  let base = digits(bytes, 12, 5);
  const firstEnd = bytes.indexOf(FIELD_END, LEADER_LENGTH);
  if (base <= LEADER_LENGTH || base > dataEnd || bytes[base - 1] !== FIELD_END || firstEnd !== base - 1) {
    const found = directoryEnd(bytes, firstEnd, dataEnd);
    if (found.missing) note('directory-end', 'The field terminator after the directory was missing.');
    if (found.base !== base)
      note(
        'base-address',
        `The leader gives the base address as ${base < 0 ? 'no number' : base}; it is ${found.base}.`,
      );
    base = found.base;
    return recut(bytes, base, found.missing ? base : base - 1, dataEnd, repairs, note);
  }
  const whole = (base - 1 - LEADER_LENGTH) % ENTRY_LENGTH === 0;
  if (!whole) note('directory', 'The directory is not a whole number of entries.');
  const slots: Slot[] = [];
  let next = base;
  let contiguous = true;
  for (let at = LEADER_LENGTH; at + ENTRY_LENGTH <= base - 1; at += ENTRY_LENGTH) {
    const length = digits(bytes, at + 3, 4);
    const start = digits(bytes, at + 7, 5);
    const from = base + start;
    const end = from + length;
    if (
      length < 1 ||
      start < 0 ||
      end > dataEnd ||
      bytes[end - 1] !== FIELD_END ||
      (from > base && bytes[from - 1] !== FIELD_END)
    )
      return recut(bytes, base, base - 1, dataEnd, repairs, note);
    if (from !== next) contiguous = false;
    next = end;
    slots.push({ tag: tagAt(bytes, at), start: from, end });
  }
  return { slots, contiguous: contiguous && next === dataEnd, base, repairs };
}

const tagAt = (bytes: Uint8Array, at: number) =>
  String.fromCharCode(bytes[at]!, bytes[at + 1]!, bytes[at + 2]!);

/** The end of the directory: its terminator, or the first place where entries of twelve digits stop. */
function directoryEnd(
  bytes: Uint8Array,
  firstEnd: number,
  dataEnd: number,
): { base: number; missing: boolean } {
  let at = LEADER_LENGTH;
  while (at + ENTRY_LENGTH <= dataEnd && digits(bytes, at + 3, 9) >= 0) at += ENTRY_LENGTH;
  const missing =
    at > LEADER_LENGTH && bytes[at] !== FIELD_END && (firstEnd < 0 || firstEnd > at + ENTRY_LENGTH);
  if (missing) return { base: at, missing };
  return { base: firstEnd < 0 ? dataEnd : firstEnd + 1, missing: false };
}

/** Pairs the directory's tags, in the order of their claimed places, with the fields as the terminators cut them. */
function recut(
  bytes: Uint8Array,
  base: number,
  directoryEnd: number,
  dataEnd: number,
  repairs: Omit<Repair, 'offset'>[],
  note: (code: Repair['code'], message: string, repaired?: boolean) => void,
): Directory {
  const entries: { tag: string; claimed: number; order: number }[] = [];
  for (let at = LEADER_LENGTH, order = 0; at + 3 <= directoryEnd; at += ENTRY_LENGTH, order++)
    entries.push({ tag: tagAt(bytes, at), claimed: digits(bytes, at + 7, 5), order });
  const pieces: { start: number; end: number }[] = [];
  for (let start = base; start < dataEnd;) {
    const found = bytes.indexOf(FIELD_END, start);
    const end = found < 0 || found >= dataEnd ? dataEnd : found + 1;
    pieces.push({ start, end });
    start = end;
  }
  const byPlace = entries.every((e) => e.claimed >= 0)
    ? [...entries].sort((a, b) => a.claimed - b.claimed || a.order - b.order)
    : entries;
  const slots = byPlace
    .map((e, i) => ({ tag: e.tag, order: e.order, piece: pieces[i] }))
    .filter((s) => s.piece !== undefined)
    .sort((a, b) => a.order - b.order)
    .map((s) => ({ tag: s.tag, start: s.piece!.start, end: s.piece!.end }));
  const odd = entries.length !== pieces.length;
  const detail = odd ? ` It has ${entries.length} entries for ${pieces.length} fields.` : '';
  note(
    'directory',
    `The directory did not fit the fields; they were cut at their terminators.${detail}`,
    !odd,
  );
  return { slots, contiguous: false, base, repairs };
}
