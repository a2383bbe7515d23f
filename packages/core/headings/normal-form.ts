import type { DataField, Subfield } from '../marc';
import { withoutMarks } from '../text';
import { endTrimmed } from './end-marks';
import { ownPart } from './own-part';
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

/** The fields whose headings have authority records of their own here. */
const CONTROLLED: Readonly<Record<string, HeadingKind>> = {
  100: 'personal',
  600: 'personal',
  700: 'personal',
  800: 'personal',
  110: 'corporate',
  610: 'corporate',
  710: 'corporate',
  810: 'corporate',
  111: 'meeting',
  611: 'meeting',
  711: 'meeting',
  811: 'meeting',
  650: 'topic',
  651: 'place',
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

/** Subfields of a heading as they stand by themselves: inner punctuation stays, the mark behind the last one goes. */
export const standingAlone = (subfields: readonly Subfield[]): Subfield[] =>
  subfields.map((s, i) => ({
    ...s,
    value: i === subfields.length - 1 ? endTrimmed(s.value) : s.value.trim(),
  }));

/** The heading in a field; null for fields whose headings have no authority record here. */
export function headingIn(f: DataField): HeadingUse | null {
  const kind = CONTROLLED[f.tag];
  const own = kind && ownPart(f);
  if (!own) return null;
  const subfields = standingAlone(own.at.map((i) => f.subfields[i]!));
  const key = headingKey(subfields);
  return key ? { kind, vocabulary: vocabularyOfField(f), key, subfields, ind1: f.ind1 } : null;
}

/** A name for the place of a heading among the keys: headings of one kind and vocabulary with one key are the same. */
export const headingGroup = ({ kind, vocabulary }: Pick<HeadingUse, 'kind' | 'vocabulary'>): string =>
  `${kind} ${vocabulary}`;

/** Group and key of a heading: what it is known by. */
export const headingIdentity = (use: Pick<HeadingUse, 'kind' | 'vocabulary' | 'key'>): string =>
  `${headingGroup(use)} ${use.key}`;
