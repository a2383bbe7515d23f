import { withoutMarks } from '../text';
import { cutEnd, keyBehind, numbersPadded, partsBehind, type PartKind } from './behind-class';
import { deweyKey, readDewey } from './dewey';
import { lcKey, readLc } from './lc';
import { prefixKey, prefixMark, typedPrefix, type PrefixOrder } from './prefix-order';
import type { Scheme } from './scheme';

/** A call number in the parts of 852: $k prefix, $h class, $i item, $m suffix. */
export interface CallNumber {
  readonly scheme: Scheme;
  readonly prefix: string;
  /** May be empty where a prefix stands for it: fiction, biographies. */
  readonly class: string;
  readonly item: string;
  /** Behind the author mark, where the house has it: 852 $i has both. */
  readonly year?: string;
  readonly suffix: string;
}

/** The call number as it is read on a label, on one line. */
export const callNumberText = (n: Omit<CallNumber, 'scheme'>): string =>
  [n.prefix, n.class, n.item, n.year ?? '', n.suffix]
    .map((p) => p.trim())
    .filter(Boolean)
    .join(' ');

/** What is wrong with a call number as the parts of a holding, beside its part; one that its scheme cannot read is allowed, and sorts last. */
export const callNumberFault = (n: Pick<CallNumber, 'prefix' | 'class' | 'item'>): string | null =>
  n.class.trim() !== '' || (n.prefix.trim() !== '' && n.item.trim() !== '')
    ? null
    : 'A call number needs a class, or a prefix and an author mark in its place.';

const SAYS: Readonly<Record<Scheme, string>> = {
  dewey: 'a Dewey number: three digits, then decimals',
  lc: 'an LC number: one to three letters, then digits',
  nlm: 'an NLM number: W or QS to QZ, then digits',
  own: 'a number of our own',
};

/** That a call number cannot be read in its scheme, as a sentence; null when it can. */
export const callNumberDoubt = (n: CallNumber): string | null =>
  callNumberFault(n) === null && isUnreadKey(shelfKey(n))
    ? `“${n.class.trim()}” is not ${SAYS[n.scheme]}. It sorts behind all others.`
    : null;

/** What a call number that its scheme cannot read is sorted behind. */
const LAST = '~';

/** Sort key of a call number written on one line; one that its scheme cannot read sorts by its text, after the rest. */
export function shelfKeyOf(text: string, scheme: Scheme): string {
  const key = scheme === 'dewey' ? deweyKey(text) : scheme === 'lc' || scheme === 'nlm' ? lcKey(text) : null;
  if (key !== null) return key;
  const { body, end } = cutEnd(withoutMarks(text));
  return (scheme === 'own' ? numbersPadded(body) : LAST + body.toUpperCase().replace(/\s+/g, ' ')) + end;
}

/**
 * Sort key of a holding's call number: what stands on one shelf sorts by prefix, class, author mark, year, suffix. One whose class
 * cannot be read sorts behind all others. `order` is the library's own of its prefixes.
 */
export const shelfKey = (n: CallNumber, order: PrefixOrder = []): string =>
  marked(plainShelfKey(n), n.prefix, order);

/** A key with the place of its prefix before it, where it can be read. */
const marked = (key: string, prefix: string, order: PrefixOrder): string =>
  isUnreadKey(key) ? key : prefixMark(prefix, order) + key;

/** The key by the alphabet of prefixes. */
function plainShelfKey(n: CallNumber): string {
  const prefix = prefixKey(n.prefix);
  const own = { ...n, prefix: '' };
  if (n.class.trim() === '') return prefix ? prefix + keyBehind(callNumberText(own)) : LAST;
  const key = shelfKeyOf(callNumberText(own), n.scheme);
  return [key.startsWith(LAST) ? LAST : '', prefix, prefix && ' ', key.replace(LAST, '')].join('');
}

/** Whether a sort key is that of a call number which its scheme could not read. */
export const isUnreadKey = (key: string): boolean => key.startsWith(LAST);

/** Orders by bytes, as the keys are made to be. */
export const byKey = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/**
 * Where a call number that is typed on one line stands, whichever scheme it is of: by the scheme that can read it, else as a prefix with
 * an author mark; empty for an empty text.
 */
export const shelfPlaceOf = (text: string, order: PrefixOrder = []): string =>
  marked(plainPlaceOf(text), typedPrefix(text), order);

function plainPlaceOf(text: string): string {
  const typed = text.trim();
  if (typed === '') return '';
  for (const scheme of ['dewey', 'lc'] as const) {
    const key = shelfKeyOf(typed, scheme);
    if (!isUnreadKey(key)) return key;
  }
  const [prefix = '', ...behind] = typed.split(/\s+/);
  const key = plainShelfKey({ scheme: 'own', prefix, class: '', item: behind.join(' '), suffix: '' });
  return behind.length === 0 ? key.trimEnd() : key;
}

/** The ends of a range of call numbers as sort keys; null where it is open. */
export interface KeyRange {
  readonly from: string | null;
  readonly to: string | null;
}

/** Sort keys of the ends of a range. */
export function keyRange(from: string, to: string, scheme: Scheme, order: PrefixOrder = []): KeyRange {
  // Letters before an LC number are its class.
  const prefixIn = (text: string) => (scheme === 'dewey' || scheme === 'own' ? typedPrefix(text) : '');
  const key = (text: string) =>
    text.trim() ? marked(shelfKeyOf(text.trim(), scheme), prefixIn(text), order) : null;
  return { from: key(from), to: key(to) };
}

/** Whether a key stands between the ends of a range: both are in it, and whatever follows the last. */
export const isInRange = (key: string, { from, to }: KeyRange): boolean =>
  (from === null || key >= from) && (to === null || key <= to || key.startsWith(to));

/** A part of a call number, as its scheme understands it. */
export interface CallNumberPart {
  readonly part: 'prefix' | 'class' | PartKind;
  readonly text: string;
}

/** What its scheme takes the parts of a call number for; null when it cannot read it. */
export function explainCallNumber(text: string, scheme: Scheme): readonly CallNumberPart[] | null {
  const behind = (rest: string) => partsBehind(rest).map((p) => ({ part: p.kind, text: p.text }));
  if (scheme === 'own') return text.trim() === '' ? null : [{ part: 'class', text: text.trim() }];
  if (scheme === 'dewey') {
    const dewey = readDewey(text);
    if (!dewey) return null;
    const cls = { part: 'class' as const, text: dewey.whole + (dewey.decimals && `.${dewey.decimals}`) };
    return [
      ...(dewey.prefix ? [{ part: 'prefix' as const, text: dewey.prefix }] : []),
      cls,
      ...behind(dewey.rest),
    ];
  }
  const lc = readLc(text);
  if (!lc) return null;
  const cls = `${lc.letters} ${lc.whole}${lc.decimal && `.${lc.decimal}`}`.trim();
  return [{ part: 'class', text: cls }, ...lc.behind.map((p) => ({ part: p.kind, text: p.text }))];
}
