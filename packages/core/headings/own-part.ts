import type { DataField } from '../marc';

/**
 * Which subfields of an access field are its heading, by the tag (MARC 21 Bibliographic and Authority: X00, X10, X11, X30 and
 * the subjects 648, 650, 651, 655 with their 1XX and 4XX).
 */
interface Family {
  readonly own: string;
  /** Relator terms: what the person or body has to do with the work, not who it is. */
  readonly relators: string;
  /** Subdivisions follow, of which the heading may have any number. */
  readonly isSubject?: true;
  /** Further fields that carry such headings, by their hundreds. */
  readonly hundreds: string;
}
const FAMILIES: Readonly<Record<string, Family>> = {
  '00': { own: 'abcdjq', relators: 'e', hundreds: '14678' },
  '10': { own: 'abcdgn', relators: 'e', hundreds: '14678' },
  '11': { own: 'acdegnq', relators: 'j', hundreds: '14678' },
  '30': { own: 'adfghklmnoprst', relators: 'e', hundreds: '14678' },
  '48': { own: 'a', relators: '', isSubject: true, hundreds: '146' },
  '50': { own: 'abcdg', relators: 'e', isSubject: true, hundreds: '146' },
  '51': { own: 'ag', relators: 'e', isSubject: true, hundreds: '146' },
  '55': { own: 'abc', relators: '', isSubject: true, hundreds: '146' },
};

/** Codes at which the title of a name-title heading begins, when it does not begin with $t itself. */
const TITLE_BEGINS = 'tfhklmoprs';
/** What a title is told apart by; $d, $g and $n belong to the part in which they stand. */
const TITLE = 'tdfghklmnoprs';
const SUBDIVISIONS = 'vxyz';

/** A heading as it stands in a field. */
export interface OwnPart {
  /** Last two digits of the tag; `00 title` and the like for a name with a title. */
  readonly type: string;
  /** Places of its subfields in the field. */
  readonly at: readonly number[];
}

const familyOf = ({ tag }: DataField): Family | undefined => {
  const family = FAMILIES[tag.slice(1)];
  return family?.hundreds.includes(tag[0]!) ? family : undefined;
};

/** Codes of the relator terms of a field. */
export const relatorCodes = (f: DataField): string => familyOf(f)?.relators ?? '';

/** The type of headings that stand in fields of this tag, a title behind a name left aside; null for other fields. */
export const typeOfTag = (tag: string): string | null => {
  const family = FAMILIES[tag.slice(1)];
  return family?.hundreds.includes(tag[0]!) ? tag.slice(1) : null;
};

/** Whether a type of heading may have subdivisions of its own. */
export const isSubjectType = (type: string): boolean => FAMILIES[type]?.isSubject === true;

/** Whether a title begins with a subfield of this code, behind a name. */
export const beginsTitle = (code: string): boolean => TITLE_BEGINS.includes(code);

const isName = (tag: string): boolean => /^.(00|10|11)$/.test(tag);

/**
 * The part of a field that is its heading: a name up to its title, a title, a subject with its subdivisions. Null for other
 * fields, and where there is none.
 */
export function ownPart(f: DataField): OwnPart | null {
  const family = familyOf(f);
  if (!family) return null;
  const end = isName(f.tag) ? titleAt(f) : f.subfields.length;
  const codes = family.isSubject ? family.own + SUBDIVISIONS : family.own;
  const at = f.subfields.flatMap(({ code }, i) => (i < end && codes.includes(code) ? [i] : []));
  return at.length > 0 && f.subfields[at[0]!]!.code === 'a' ? { type: f.tag.slice(1), at } : null;
}

/** Where the title of a name-title heading begins; behind the last subfield when there is none. */
function titleAt(f: DataField): number {
  const at = f.subfields.findIndex((s) => TITLE_BEGINS.includes(s.code));
  return at < 0 ? f.subfields.length : at;
}

/** Name and title of a field together, as one heading; null where there is no $t behind a name. */
export function nameTitlePart(f: DataField): OwnPart | null {
  const name = isName(f.tag) ? ownPart(f) : null;
  const begins = titleAt(f);
  if (!name || !f.subfields.some((s) => s.code === 't')) return null;
  const title = f.subfields.flatMap(({ code }, i) => (i >= begins && TITLE.includes(code) ? [i] : []));
  return { type: `${name.type} title`, at: [...name.at, ...title] };
}

/** The beginning of a subject that has these codes in this order, or null; what follows are further subdivisions. */
export function subjectBeginning(f: DataField, codes: readonly string[]): OwnPart | null {
  const whole = ownPart(f);
  if (!whole || !isSubjectType(whole.type) || whole.at.length < codes.length) return null;
  const at = whole.at.slice(0, codes.length);
  const rest = whole.at.slice(codes.length).map((i) => f.subfields[i]!.code);
  const same = at.every((i, k) => f.subfields[i]!.code === codes[k]);
  return same && rest.every((c) => SUBDIVISIONS.includes(c)) ? { type: whole.type, at } : null;
}
