import type { DataField, Subfield } from '../marc';
import { withoutMarks } from '../text';
import { vocabularyOfField } from './vocabulary';

/**
 * Normal form of a heading's text (PCC "Authority File Comparison Rules (NACO Normalization)"): no marks, capitals,
 * punctuation a blank, apostrophes and brackets nothing, the first comma of subfield a kept.
 */
export function normalText(text: string, keepFirstComma = false): string {
  const comma = keepFirstComma ? text.indexOf(',') : -1;
  const head = comma >= 0 && comma < text.trimEnd().length - 1 ? text.slice(0, comma) : text;
  const tail = head === text ? '' : text.slice(comma + 1);
  const normal = (part: string) =>
    withoutMarks(part)
      .toUpperCase()
      .replace(/['’ʹʻʼ[\]]/g, '')
      .replace(/[^\p{L}\p{N}#♭&+]+/gu, ' ')
      .trim();
  return tail ? `${normal(head)},${normal(tail) ? ` ${normal(tail)}` : ''}` : normal(head);
}

/** Key of a heading: its subfields in normal form, each with its code. Two headings with one key are the same. */
export function headingKey(subfields: readonly Subfield[]): string {
  return subfields
    .filter((s) => s.value.trim() !== '')
    .map((s) => (s.code === 'a' ? normalText(s.value, true) : `$${s.code}${normalText(s.value)}`))
    .join('');
}

export type HeadingKind = 'personal' | 'corporate' | 'meeting' | 'topic' | 'place';

/** The part of an access field that a heading controls, by tag. */
interface Controlled {
  readonly kind: HeadingKind;
  readonly codes: string;
}
const PERSONAL: Controlled = { kind: 'personal', codes: 'abcdjq' };
const CORPORATE: Controlled = { kind: 'corporate', codes: 'abcdgn' };
const MEETING: Controlled = { kind: 'meeting', codes: 'acdengq' };
const CONTROLLED: Record<string, Controlled> = {
  100: PERSONAL,
  600: PERSONAL,
  700: PERSONAL,
  800: PERSONAL,
  110: CORPORATE,
  610: CORPORATE,
  710: CORPORATE,
  810: CORPORATE,
  111: MEETING,
  611: MEETING,
  711: MEETING,
  811: MEETING,
  650: { kind: 'topic', codes: 'abvxyz' },
  651: { kind: 'place', codes: 'avxyz' },
};

/** The heading that stands in an access field. */
export interface HeadingUse {
  readonly kind: HeadingKind;
  /** Source code of the vocabulary: the same words of another one are another heading. */
  readonly vocabulary: string;
  readonly key: string;
  /** Its subfields without the punctuation that belongs to the field, not to the name. */
  readonly subfields: readonly Subfield[];
  readonly ind1: string;
}

export function headingIn(f: DataField): HeadingUse | null {
  const controlled = CONTROLLED[f.tag];
  if (!controlled) return null;
  const upToTitle = f.subfields.findIndex((s) => s.code === 't');
  const own = (upToTitle < 0 ? f.subfields : f.subfields.slice(0, upToTitle)).filter((s) =>
    controlled.codes.includes(s.code),
  );
  if (own.length === 0 || own[0]!.code !== 'a') return null;
  const subfields = own.map((s, i) =>
    i === own.length - 1 ? { ...s, value: endTrimmed(s.value) } : { ...s, value: s.value.trim() },
  );
  const key = headingKey(subfields);
  return key
    ? { kind: controlled.kind, vocabulary: vocabularyOfField(f), key, subfields, ind1: f.ind1 }
    : null;
}

/** A name for the place of a heading among the keys: headings of one kind and vocabulary with one key are the same. */
export const headingGroup = ({ kind, vocabulary }: Pick<HeadingUse, 'kind' | 'vocabulary'>): string =>
  `${kind} ${vocabulary}`;

/** Group and key of a heading: what it is known by. */
export const headingIdentity = (use: Pick<HeadingUse, 'kind' | 'vocabulary' | 'key'>): string =>
  `${headingGroup(use)} ${use.key}`;

/** Text without the comma or full stop that ends a heading in a record; stops after initials and short forms stay. */
export function endTrimmed(text: string): string {
  const t = text.trim().replace(/[,;]$/, '').trim();
  return /(^|[\s.])\p{L}\.$/u.test(t) || /\b(Jr|Sr|St|Dr|Co|Inc|Ltd|etc|ca|b|d)\.$/i.test(t)
    ? t
    : t.replace(/\.$/, '');
}
