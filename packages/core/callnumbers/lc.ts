import { withoutMarks } from '../text';
import { keyOfParts, partsBehind, plainDecimals, type BehindClass } from './behind-class';

/** A Library of Congress or NLM call number in its parts. */
export interface LcCallNumber {
  readonly letters: string;
  readonly whole: string;
  readonly decimal: string;
  /** Cutters, years, volumes and what else follows, in order. */
  readonly behind: readonly BehindClass[];
}

/** Letters, up to four digits, decimals; a spine may have the decimals on a line of their own. */
const CLASS = /^([A-Z]{1,3})(?:\s*(\d{1,4})(?!\d)(?:\s*\.\s*(\d+))?)?(?![A-Z]{3})/;

/** Reads an LC or NLM call number, in small letters or without blanks too; null for text that does not begin as one. */
export function readLc(text: string): LcCallNumber | null {
  const plain = withoutMarks(text).trim().replace(/\s+/g, ' ');
  const found = CLASS.exec(plain.toUpperCase());
  if (!found) return null;
  const behind = partsBehind(plain.slice(found[0].length));
  if (!found[2] && behind.length > 0) return null;
  return { letters: found[1]!, whole: found[2] ?? '', decimal: found[3] ?? '', behind };
}

/**
 * Key whose byte order is shelf order (LC shelflisting: nothing before something, class numbers as whole numbers,
 * decimals and cutters as decimals, volume and year numbers by value).
 */
export function lcKey(text: string): string | null {
  const lc = readLc(text);
  if (!lc) return null;
  const cls = lc.letters.padEnd(3) + lc.whole.padStart(4, '0') + plainDecimals(lc.decimal);
  return cls + keyOfParts(lc.behind);
}
