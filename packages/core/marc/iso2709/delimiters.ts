/** ISO 2709 delimiters as MARC 21 uses them (MARC 21 Specifications: Record Structure). */
export const SUBFIELD = 0x1f;
/** Field terminator (ISO 2709). */
export const FIELD_END = 0x1e;
/** Record terminator. */
export const RECORD_END = 0x1d;
/** Delimiter before a subfield code, as a character. */
export const SUBFIELD_CHAR = '\u001f';
/** Field terminator, as a character. */
export const FIELD_END_CHAR = '\u001e';
/** Record terminator, as a character. */
export const RECORD_END_CHAR = '\u001d';
/** Bytes of a leader. */
export const LEADER_LENGTH = 24;
/** Bytes of a directory entry in MARC 21. */
export const ENTRY_LENGTH = 12;

/** The number in ASCII digits at `from`, or -1 when something else stands there. */
export function digits(bytes: Uint8Array, from: number, count: number): number {
  let n = 0;
  for (let i = from; i < from + count; i++) {
    const d = (bytes[i] ?? 0) - 48;
    if (d < 0 || d > 9) return -1;
    n = n * 10 + d;
  }
  return n;
}

/** Whether a leader seems to begin here: length, a status and type letter, the fixed 22 and the entry map 4500. */
export function looksLikeLeader(bytes: Uint8Array, at: number): boolean {
  if (at + LEADER_LENGTH > bytes.length) return false;
  const isLetter = (b: number) => b >= 97 && b <= 122;
  const fixed = (bytes[at + 10] === 50 ? 1 : 0) + (bytes[at + 11] === 50 ? 1 : 0);
  const map = bytes[at + 20] === 52 && bytes[at + 21] === 53;
  return (
    (digits(bytes, at, 5) >= 0 || fixed === 2) &&
    isLetter(bytes[at + 5]!) &&
    isLetter(bytes[at + 6]!) &&
    (fixed === 2 || map)
  );
}

/** Whether a leader stands here whose base address or record length is borne out by the terminators. */
export function leaderFits(bytes: Uint8Array, at: number): boolean {
  if (digits(bytes, at, 5) < 0 || !looksLikeLeader(bytes, at)) return false;
  const base = digits(bytes, at + 12, 5);
  const length = digits(bytes, at, 5);
  return (
    (base > LEADER_LENGTH && bytes[at + base - 1] === FIELD_END) ||
    (length > LEADER_LENGTH && bytes[at + length - 1] === RECORD_END)
  );
}

/** Whether a leader stands here of which more bytes are needed to say if it fits. */
export function mayFitWithMore(bytes: Uint8Array, at: number): boolean {
  if (digits(bytes, at, 5) < 0 || !looksLikeLeader(bytes, at) || leaderFits(bytes, at)) return false;
  const said = Math.max(digits(bytes, at, 5), digits(bytes, at + 12, 5));
  return at + said > bytes.length;
}
