import { withoutMarks } from '../text';
import { numbersPadded } from './behind-class';
import { readDewey } from './dewey';

/** Prefixes in the order in which a library shelves them. Call numbers without a prefix stand before them, those with any other behind them, by the alphabet. */
export type PrefixOrder = readonly string[];

/** It stands between digits and letters: prefixes with a place of their own stand behind the digits and before all letters. */
const PLACED = '@';

/** A prefix as it is compared. */
export const prefixKey = (prefix: string): string => numbersPadded(withoutMarks(prefix));

/** What stands before the key of a call number that has this prefix; empty for a prefix that has no place of its own. */
export function prefixMark(prefix: string, order: PrefixOrder): string {
  if (order.length === 0 || prefix.trim() === '') return '';
  const own = prefixKey(prefix);
  const at = order.findIndex((one) => prefixKey(one) === own);
  return at < 0 ? '' : `${PLACED}${String(at).padStart(3, '0')} `;
}

/** The prefix of a call number that is typed on one line: what stands before a Dewey number, else the first word where it is no number. */
export function typedPrefix(text: string): string {
  const typed = text.trim();
  const [first = ''] = typed.split(/\s+/);
  return readDewey(typed)?.prefix ?? (/\d/.test(first) ? '' : first);
}
