import { field, type DataField, type MarcRecord } from '../marc';
import { authorityFields, headingTag, type Heading } from './heading';
import { WrongForm } from './new-form';
import { isSubjectKind, type HeadingKind } from './normal-form';
import { NAMES, vocabularyFields } from './vocabulary';

/** Kinds of headings that are made by hand; a name typed with a title ($t) makes a name-title. */
export const HEADING_KINDS = [
  'personal',
  'corporate',
  'meeting',
  'title',
  'topic',
  'place',
  'period',
  'genre',
] as const;

/** The vocabulary of a new heading: names are of one, subjects of the one that is said. */
export const vocabularyOfNew = (kind: HeadingKind, said: string): string =>
  isSubjectKind(kind) ? said || 'lcsh' : NAMES;

/** A heading of a kind with no form yet, in direct order or under a surname. */
export const unnamedHeading = (kind: HeadingKind, vocabulary: string): Heading => {
  const tag = headingTag(kind);
  const ind1 = kind === 'personal' ? '1' : kind === 'corporate' || kind === 'meeting' ? '2' : ' ';
  return authorityFields(kind, [
    ...vocabularyFields(vocabulary, tag),
    { tag, ind1, ind2: kind === 'title' ? '0' : ' ', subfields: [{ code: 'a', value: '' }] },
  ]);
};

/** Dates as they end a personal name: "1880-1950", "1946-", "approximately 1620-1684", "active 1790". */
const DATES =
  /^(.+?),\s*((?:(?:approximately|active|born|died)\s+)?\d{3,4}\??(?:\s*-\s*(?:(?:approximately|died)\s+)?(?:\d{3,4}\??)?)?)\.?$/;

/**
 * A form as it was typed, with subfields: dates that end a personal name without any are its $d. Throws `WrongForm` where subdivisions
 * are typed behind dashes, since which they are ($v $x $y $z) cannot be seen.
 */
export function withSubfields(kind: HeadingKind, typed: string): string {
  if (/[$‡|]/.test(typed)) return typed;
  if (isSubjectKind(kind) && /--|\s[—–]\s/.test(typed))
    throw new WrongForm('Type subdivisions behind $x, $y, $z or $v: Basket making$zNetherlode.');
  const [, name, dates] = kind === 'personal' ? (DATES.exec(typed.trim()) ?? []) : [];
  return name && dates ? `$a${name},$d${dates}` : typed;
}

/** What a new authority record is made of. */
export interface NewAuthority {
  readonly kind: HeadingKind;
  readonly vocabulary: string;
  /** Its form, as 1XX. */
  readonly form: DataField;
  /** Other forms, as 4XX. */
  readonly seeFroms: readonly DataField[];
  /** Where the form was found (670 $a). */
  readonly source: string;
  /** Today (ISO date). */
  readonly on: string;
}

/**
 * An authority record made by hand: an established heading (MARC 21 Format for Authority Data: leader, 008; what nobody was asked about
 * is coded as not attempted), its form, other forms, and the source of it.
 */
export function newAuthority({ kind, vocabulary, form, seeFroms, source, on }: NewAuthority): Heading {
  const others = vocabularyFields(vocabulary, form.tag);
  const told = others.find((f) => f.tag === '008');
  const system = told && 'value' in told ? told.value[SYSTEM]! : 'a';
  const isName = !isSubjectKind(kind);
  const fixed = [
    on.slice(2).replaceAll('-', ''),
    // Subdivided by place, romanized, language; kind of record, rules; system; series twice.
    `${isName ? 'n' : '|'}||a|${system}nn`,
    // Used for names, for subjects, for series; kind of subdivision.
    `${isName ? 'a' : 'b'}abn`,
    ' '.repeat(10),
    // Government agency; references looked at; record can be used; one person; fully established.
    `|${seeFroms.length ? 'a' : 'n'} a${kind === 'personal' ? 'a' : 'n'}a`,
    ' '.repeat(4),
    // Not changed for want of letters; catalogued by another than a national agency.
    ' d',
  ].join('');
  const fields: MarcRecord['fields'] = [
    { tag: '008', value: fixed },
    ...others.filter((f) => f.tag !== '008'),
    form,
    ...seeFroms,
    field('670', '  ', 'a', source),
  ];
  return authorityFields(kind, fields);
}
const SYSTEM = 11;
