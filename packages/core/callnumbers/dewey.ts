import { withoutMarks } from '../text';
import { numbersPadded } from './lc';

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

/** Reads a Dewey class number; null when the text is none. */
export function readDewey(text: string): DeweyClass | null {
  const found =
    /^\s*([A-Za-z]{0,4}\s+|[A-Za-z])?\s*(\d{3})([/'′’]?)(?:\.([\d/'′’]+))?(?=\s|$|[^\d.])(.*)$/s.exec(text);
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

/** Key whose byte order is shelf order: class as a decimal, then cutter and the rest, nothing before something. */
export function deweyKey(text: string): string | null {
  const dewey = readDewey(text);
  if (!dewey) return null;
  const prefix = dewey.prefix ? `${dewey.prefix.toUpperCase()} ` : '';
  const rest = withoutMarks(dewey.rest);
  const [cutter = '', ...more] = rest.split(/\s+/).filter(Boolean);
  // A cutter's digits are decimals (W67 before W7); numbers after it are whole (v.2 before v.10).
  const tail = more.length ? ` ${numbersPadded(more.join(' '))}` : '';
  return `${prefix}${dewey.whole}${dewey.decimals ? `.${dewey.decimals}` : ''}${cutter ? ` ${cutter.toUpperCase()}` : ''}${tail}`;
}
