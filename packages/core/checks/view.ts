import type { IsbnReading } from '../access';
import type { FieldDefinition, Format } from '../format';
import type { DataField, MarcRecord, Where } from '../marc';
import type { Memory } from '../text';

/** A data field with its index and its occurrence among the fields of its tag. */
export class Placed {
  private parts: readonly SubfieldAt[] | undefined;
  constructor(
    readonly field: DataField,
    readonly at: number,
    readonly occurrence: number,
    /** The tag whose rules hold: that of the partner for an 880, else the field's own. */
    readonly rules: string,
    /** What the format says of it. */
    readonly definition: FieldDefinition | undefined,
    /** Whether it is known to be sound, so that the checks of each field need not look at it. */
    readonly sound: boolean,
  ) {}
  get subfields(): readonly SubfieldAt[] {
    return (this.parts ??= this.field.subfields.map(({ code, value }, i) => ({ code, value, i })));
  }
}

/** A subfield with its place in the field. */
export interface SubfieldAt {
  readonly code: string;
  readonly value: string;
  readonly i: number;
}
/** An ISBN with where it stands. */
export interface IsbnAt extends SubfieldAt {
  readonly p: Placed;
  readonly isbn: IsbnReading | null;
}

/** A control field with where it stands. */
export interface ControlAt {
  readonly tag: string;
  readonly value: string;
  readonly at: number;
}
/** Text in another script, with where it stands. */
export interface ForeignText extends SubfieldAt {
  readonly p: Placed;
}

/** A record taken apart once for all checks. */
export interface RecordView {
  readonly record: MarcRecord;
  readonly format: Format;
  /** Data fields in order. */
  readonly data: readonly Placed[];
  /** 600–655, the headings among the subject fields. */
  readonly subjects: readonly Placed[];
  /** 100, 110, 111, 700, 710 and 711. */
  readonly names: readonly Placed[];
  /** Data fields that are not quite as the format has them in tag, repetition, indicators or subfield codes. */
  readonly irregular: readonly Placed[];
  /** Whether any field has no subfield, or a subfield no text. */
  readonly hollow: boolean;
  /** Whether any text begins or ends with a blank. */
  readonly ragged: boolean;
  /** Subfields with anything but printable ASCII. */
  readonly foreign: readonly ForeignText[];
  /** Data fields of one tag. */
  tagged(tag: string): readonly Placed[];
  /** Data fields of several tags, tag by tag; an 880 counts as what its partner is. */
  ruled(tags: readonly string[]): readonly Placed[];
  /** Control fields in order, with their index among all fields. */
  readonly controls: readonly ControlAt[];
  /** The first control field of a tag, with its index. */
  control(tag: string): ControlAt | undefined;
  /** All texts of data fields with a bar between them, for a first look. */
  readonly text: string;
  /** Every 020 $a with what stands there as an ISBN. */
  readonly isbns: readonly IsbnAt[];
  /** Whether any field is linked to one in another script ($6), or is one. */
  readonly linked: boolean;
  /** 008/35–37, empty when there is none. */
  readonly language: string;
  /** What the checks of each field go by beside the field: format, leader/18 and language. */
  readonly expected: string;
  /** What pure functions gave for other records of the session. */
  readonly memory: Memory;
  /** The same record as if it had only those of its data fields that are not known to be sound; null when it has none. */
  readonly doubtful: RecordView | null;
}

const NO_SUBFIELDS: readonly SubfieldAt[] = [];
/** The subject access fields of MARC 21 Bibliographic. */
export const SUBJECT_TAGS = ['600', '610', '611', '630', '647', '648', '650', '651', '655'];
/** The name access fields of MARC 21 Bibliographic. */
export const NAME_TAGS = ['100', '110', '111', '700', '710', '711'];

/** The whole of a field as a place. */
export const wholeField = ({ field, at, occurrence }: Placed): Where => ({
  field: at,
  tag: field.tag,
  occurrence,
});

/** A place within a subfield's text; without a range the whole text. */
export function inSubfield(
  { field, at, occurrence }: Placed,
  subfield: number,
  start?: number,
  end?: number,
): Where {
  return {
    field: at,
    tag: field.tag,
    occurrence,
    subfield,
    code: field.subfields[subfield]?.code,
    start,
    end,
  };
}

/** The record as a whole as a place. */
export const RECORD: Where = { field: -1, tag: 'LDR', occurrence: 0 };
/** Positions of the leader. */
export const inLeader = (start: number, end: number): Where => ({ ...RECORD, start, end });
/** Positions of a control field. */
export const inControl = (tag: string, at: number, start?: number, end?: number): Where => ({
  field: at,
  tag,
  occurrence: 0,
  start,
  end,
});

/** The subfields with one of these codes, in order; all without codes. */
export function subfieldsOf(p: Placed, codes?: string): readonly SubfieldAt[] {
  if (codes === undefined) return p.subfields;
  let found: SubfieldAt[] | undefined;
  for (const s of p.subfields) if (codes.includes(s.code)) (found ??= []).push(s);
  return found ?? NO_SUBFIELDS;
}

/** The texts of subfields with one of these codes in several fields, in order. */
export function textsIn(fields: readonly Placed[], codes: string): string[] {
  const found: string[] = [];
  for (const { subfields } of fields)
    for (const s of subfields) if (codes.includes(s.code)) found.push(s.value);
  return found;
}

const isText = (code: string) => code >= 'a' && code <= 'z' && code !== 'u';

/** Index of the last subfield with text of the field itself: no link, no control subfield; -1 for none. */
export function lastTextOf({ subfields }: Placed): number {
  for (let i = subfields.length - 1; i >= 0; i--) if (isText(subfields[i]!.code)) return i;
  return -1;
}
