import { withoutMarks } from '../text';
import { keyBehind, numbersPadded, plainDecimals } from './behind-class';

/** A Dewey class number as 082 $a gives it: three digits, decimals, prime marks where it may be cut. */
export interface DeweyClass {
  readonly whole: string;
  readonly decimals: string;
  /** Numbers of decimals after which a prime mark (/ or ′) stands. */
  readonly marks: readonly number[];
  /** What stands before the number, such as a J. */
  readonly prefix: string;
  readonly rest: string;
}

/** Words before the number, then three digits that no letter or digit follows, decimals with marks where it may be cut. */
const PATTERN =
  /^\s*((?:\p{L}[\p{L}.+*&-]*\s+)*|\p{L})\s*(\d{3})([/'′’]?)(?:\s?\.\s?(\d[\d/'′’]*))?(?![\d.])(.*)$/su;

/** Reads a Dewey class number; null when the text is none. */
export function readDewey(text: string): DeweyClass | null {
  const found = PATTERN.exec(text);
  if (!found) return null;
  const marks: number[] = [];
  if (found[3]) marks.push(0);
  let decimals = '';
  for (const char of found[4] ?? '')
    if (/\d/.test(char)) decimals += char;
    else marks.push(decimals.length);
  return { whole: found[2]!, decimals, marks, prefix: (found[1] ?? '').trim(), rest: found[5]!.trim() };
}

/**
 * A class number cut to so many decimals: at the last prime mark that leaves no more than these, else at the limit;
 * zeros left at the end go (common practice, no source). Null when the text is no Dewey number.
 */
export function cutDewey(text: string, decimals: number): string | null {
  const dewey = readDewey(text);
  if (!dewey) return null;
  if (dewey.decimals.length <= decimals) return dewey.whole + (dewey.decimals ? `.${dewey.decimals}` : '');
  const mark = Math.max(-1, ...dewey.marks.filter((m) => m <= decimals));
  const kept = dewey.decimals.slice(0, mark >= 0 ? mark : decimals).replace(/0+$/, '');
  return dewey.whole + (kept ? `.${kept}` : '');
}

/** Key whose byte order is shelf order: class as a decimal, then author mark and the rest, nothing before something. */
export function deweyKey(text: string): string | null {
  const dewey = readDewey(text);
  if (!dewey) return null;
  const prefix = dewey.prefix ? `${numbersPadded(withoutMarks(dewey.prefix))} ` : '';
  const decimals = plainDecimals(dewey.decimals);
  return `${prefix}${dewey.whole}${decimals && `.${decimals}`}${keyBehind(dewey.rest)}`;
}
