import type { DataField, Subfield } from '../marc';
import { asciiClasses, asciiWords, withoutMarks } from '../text';
import { endTrimmed } from './end-marks';
import { beginsTitle, nameTitlePart, ownPart, type OwnPart } from './own-part';
import { vocabularyOfField } from './vocabulary';

const NORMAL = asciiClasses('ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789#&+', "'[]");
const normal = (part: string): string =>
  asciiWords(part.toUpperCase(), NORMAL) ??
  withoutMarks(part)
    .toUpperCase()
    .replace(/['’ʹʻʼ[\]]/g, '')
    .replace(/[^\p{L}\p{N}#♭&+]+/gu, ' ')
    .trim();

/**
 * Normal form of a heading's text (PCC "Authority File Comparison Rules (NACO Normalization)"): no marks, capitals,
 * punctuation a blank, apostrophes and brackets nothing, the first comma of subfield a kept.
 */
export function normalText(text: string, keepFirstComma = false): string {
  const comma = keepFirstComma ? text.indexOf(',') : -1;
  const head = comma >= 0 && comma < text.trimEnd().length - 1 ? text.slice(0, comma) : text;
  const tail = head === text ? '' : text.slice(comma + 1);
  return tail ? `${normal(head)},${normal(tail) ? ` ${normal(tail)}` : ''}` : normal(head);
}

/** Key of a heading: its subfields in normal form, each with its code. Two headings with one key are the same. */
export function headingKey(subfields: readonly Subfield[]): string {
  return subfields
    .filter((s) => s.value.trim() !== '')
    .map((s) => (s.code === 'a' ? normalText(s.value, true) : `$${s.code}${normalText(s.value)}`))
    .join('');
}

/** Kinds of headings: names, titles by themselves (uniform titles, series), titles behind a name, and subjects of four kinds. */
export type HeadingKind =
  'personal' | 'corporate' | 'meeting' | 'title' | 'name-title' | 'topic' | 'place' | 'period' | 'genre';

/** The kinds of headings that are subjects: each vocabulary has its own, and subdivisions may follow. */
export const SUBJECT_KINDS: readonly HeadingKind[] = ['topic', 'place', 'period', 'genre'];
/** Whether headings of a kind are subjects. */
export const isSubjectKind = (kind: HeadingKind): boolean => SUBJECT_KINDS.includes(kind);

/** Kinds by the last two digits of a tag (MARC 21 Bibliographic and Authority). */
const KINDS_OF: Readonly<Record<string, HeadingKind>> = {
  '00': 'personal',
  10: 'corporate',
  11: 'meeting',
  30: 'title',
  48: 'period',
  50: 'topic',
  51: 'place',
  55: 'genre',
};
/** The kind of headings in fields whose tags end so, a title behind a name left aside; undefined for those that have no authority record here. */
export const kindOfTag = (tag: string): HeadingKind | undefined => KINDS_OF[tag.slice(1)];

/** The access fields of bibliographic records whose headings have authority records here. */
const CONTROLLED = /^(?:[1678](?:00|10|11|30)|6(?:48|50|51|55))$/;

/** The heading that stands in an access field. */
export interface HeadingUse {
  readonly kind: HeadingKind;
  /** Source code of the vocabulary: the same words of another one are another heading. */
  readonly vocabulary: string;
  readonly key: string;
  /** Its subfields without the punctuation that belongs to the field, not to the name. */
  readonly subfields: readonly Subfield[];
  /** Tag and indicators of its authority's kept form (1XX). */
  readonly tag: string;
  readonly ind1: string;
  readonly ind2: string;
}

/** Subfields of a heading as they stand by themselves: inner punctuation stays, the mark behind the last one goes. */
export const standingAlone = (subfields: readonly Subfield[]): Subfield[] =>
  subfields.map((s, i) => ({
    ...s,
    value: i === subfields.length - 1 ? endTrimmed(s.value) : s.value.trim(),
  }));

/** The headings in a field: a name or title or subject, and behind it the name with its title as one; none for fields without authority control here. */
export function headingsIn(f: DataField): HeadingUse[] {
  const kind = CONTROLLED.test(f.tag) ? kindOfTag(f.tag) : undefined;
  if (!kind) return [];
  return [useIn(f, kind, ownPart(f)), useIn(f, 'name-title', nameTitlePart(f))].filter((use) => use !== null);
}

/** The first of them; null where there is none. */
export const headingIn = (f: DataField): HeadingUse | null => headingsIn(f)[0] ?? null;

function useIn(f: DataField, kind: HeadingKind, part: OwnPart | null): HeadingUse | null {
  const own = part?.at.map((i) => f.subfields[i]!);
  if (!own) return null;
  const subfields = standingAlone(kind === 'name-title' ? withStopBeforeTitle(own) : own);
  const key = headingKey(subfields);
  if (key === '') return null;
  return {
    kind,
    vocabulary: vocabularyOfField(f),
    key,
    tag: `1${f.tag.slice(1)}`,
    ...indicatorsOf(f, kind),
    subfields,
  };
}

/** The full stop between a name and its title, where a relator or nothing stood; an open date's hyphen stands for it. */
function withStopBeforeTitle(own: readonly Subfield[]): Subfield[] {
  const before = own.findIndex((s) => beginsTitle(s.code)) - 1;
  return own.map((s, i) => {
    if (i !== before) return s;
    const name = endTrimmed(s.value);
    return { ...s, value: /[-.?!]$/.test(name) ? name : `${name}.` };
  });
}

/** Indicators of an authority's 1XX: the kind of name, or how many characters of a title are passed over in filing. */
function indicatorsOf(f: DataField, kind: HeadingKind): Pick<HeadingUse, 'ind1' | 'ind2'> {
  if (isSubjectKind(kind)) return { ind1: ' ', ind2: ' ' };
  if (kind !== 'title') return { ind1: f.ind1, ind2: ' ' };
  const count = f.tag[0] === '8' ? f.ind2 : f.ind1;
  return { ind1: ' ', ind2: /\d/.test(count) ? count : '0' };
}

/** A name for the place of a heading among the keys: headings of one kind and vocabulary with one key are the same. */
export const headingGroup = ({ kind, vocabulary }: Pick<HeadingUse, 'kind' | 'vocabulary'>): string =>
  `${kind} ${vocabulary}`;

/** Group and key of a heading: what it is known by. */
export const headingIdentity = (use: Pick<HeadingUse, 'kind' | 'vocabulary' | 'key'>): string =>
  `${headingGroup(use)} ${use.key}`;
