import { withoutMarks } from '../text';
import { deweyKey } from './dewey';
import { lcKey, numbersPadded } from './lc';

/** Scheme of a call number, as 852 first indicator 0, 1, 2 and 4/8 tell them apart. */
export type Scheme = 'lc' | 'dewey' | 'nlm' | 'own';

/** A call number in the parts of 852: $k prefix, $h class, $i item, $m suffix. */
export interface CallNumber {
  readonly scheme: Scheme;
  readonly prefix: string;
  readonly class: string;
  readonly item: string;
  readonly suffix: string;
}

/** The call number as it is read on a label, on one line. */
export const callNumberText = (n: Omit<CallNumber, 'scheme'>): string =>
  [n.prefix, n.class, n.item, n.suffix]
    .map((p) => p.trim())
    .filter(Boolean)
    .join(' ');

/** Sort key of a call number written on one line; one that its scheme cannot read sorts by its text, after the rest. */
export function shelfKeyOf(text: string, scheme: Scheme): string {
  const key = scheme === 'dewey' ? deweyKey(text) : scheme === 'lc' || scheme === 'nlm' ? lcKey(text) : null;
  return key ?? (scheme === 'own' ? '' : '~') + numbersPadded(withoutMarks(text));
}

/** Sort key of a holding's call number: what stands on one shelf sorts by prefix, class, item, suffix. */
export function shelfKey(n: CallNumber): string {
  const prefix = n.prefix.trim() ? `${numbersPadded(withoutMarks(n.prefix))} ` : '';
  return prefix + shelfKeyOf(callNumberText({ ...n, prefix: '' }), n.scheme);
}

/** Orders by bytes, as the keys are made to be. */
export const byKey = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
