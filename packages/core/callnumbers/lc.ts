/** A Library of Congress call number in its parts. */
export interface LcCallNumber {
  readonly letters: string;
  readonly whole: string;
  readonly decimal: string;
  /** What stands between class and first cutter, such as a year. */
  readonly classDate: string;
  readonly cutters: readonly string[];
  readonly rest: string;
}

const PATTERN = /^([A-Z]{1,3})\s*(\d{1,4})?(?:\.(\d+))?\s*((?:1[0-9]|20)\d{2}[a-z]?(?=\s|\.|$))?\s*(.*)$/;

/** Reads an LC call number; null for text that does not begin as one. */
export function readLc(text: string): LcCallNumber | null {
  const found = PATTERN.exec(inCapitals(text.trim().replace(/\s+/g, ' ')));
  if (!found) return null;
  let rest = found[5]!;
  const cutters: string[] = [];
  while (cutters.length < 3) {
    const cutter = /^\.?\s?([A-Za-z])(\d+)([a-z]*)(?=[\s.A-Z]|$)\s*/.exec(rest);
    if (!cutter) break;
    cutters.push(cutter[1]!.toUpperCase() + cutter[2]! + cutter[3]!);
    rest = rest.slice(cutter[0].length);
  }
  if (!found[2] && (found[3] || rest)) return null;
  return {
    letters: found[1]!,
    whole: found[2] ?? '',
    decimal: found[3] ?? '',
    classDate: found[4] ?? '',
    cutters,
    rest,
  };
}

/** A number typed in small letters as its capitals: all of it, or the class and the cutters between digits. */
const inCapitals = (text: string): string =>
  /[A-Z]/.test(text)
    ? text
        .replace(/^([a-z]{1,3})(?=\s?\d)/, (l) => l.toUpperCase())
        .replace(/(?<=\d)[a-z](?=\d)/g, (l) => l.toUpperCase())
    : text.toUpperCase();

/**
 * Key whose byte order is shelf order (LC shelflisting: nothing before something, class numbers as whole numbers,
 * decimals and cutters as decimals, volume and year numbers by value).
 */
export function lcKey(text: string): string | null {
  const lc = readLc(text);
  if (!lc) return null;
  let key = lc.letters.padEnd(3) + lc.whole.padStart(4, '0') + lc.decimal;
  if (lc.classDate) key += ` ${lc.classDate}`;
  for (const cutter of lc.cutters) key += ` ${cutter.toUpperCase()}`;
  if (lc.rest) key += ` ${numbersPadded(lc.rest)}`;
  return key;
}

/** Text in which runs of digits sort by value, punctuation does not count and case neither. */
export function numbersPadded(text: string): string {
  return text
    .toUpperCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
    .replace(/\d+/g, (n) => n.padStart(6, '0'));
}
