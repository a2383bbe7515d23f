import { readIsbn, type IsbnReading } from '../access';
import { fieldDefinition, formatOf, type FieldDefinition, type Format } from '../format';
import { isData, type DataField, type MarcRecord, type Where } from '../marc';

/** A data field with its index and its occurrence among the fields of its tag. */
export interface Placed {
  readonly field: DataField;
  readonly at: number;
  readonly occurrence: number;
  /** The tag whose rules hold: that of the partner for an 880, else the field's own. */
  readonly rules: string;
  readonly subfields: readonly SubfieldAt[];
  /** What the format says of it. */
  readonly definition: FieldDefinition | undefined;
}

/** A subfield with its place in the field. */
export interface SubfieldAt {
  readonly code: string;
  readonly value: string;
  readonly i: number;
}
export interface IsbnAt extends SubfieldAt {
  readonly p: Placed;
  readonly isbn: IsbnReading | null;
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
  /** Data fields of one tag. */
  tagged(tag: string): readonly Placed[];
  /** The first control field of a tag, with its index. */
  control(tag: string): { readonly value: string; readonly at: number } | undefined;
  /** All texts of data fields with a unit separator between them, for a first look. */
  readonly text: string;
  /** Printable ASCII throughout: nothing for the checks of characters. */
  readonly plain: boolean;
  /** Every 020 $a with what stands there as an ISBN. */
  readonly isbns: readonly IsbnAt[];
  /** Whether any field is linked to one in another script ($6), or is one. */
  readonly linked: boolean;
  /** 008/35–37, empty when there is none. */
  readonly language: string;
}

const NONE: readonly Placed[] = [];
const NO_SUBFIELDS: readonly SubfieldAt[] = [];
const PLAIN = /^[ -~\u001f]*$/;
const SUBJECTS = new Set(['600', '610', '611', '630', '647', '648', '650', '651', '655']);
const NAMES = new Set(['100', '110', '111', '700', '710', '711']);

export function viewOf(record: MarcRecord): RecordView {
  const format = formatOf(record.leader);
  const data: Placed[] = [];
  const subjects: Placed[] = [];
  const names: Placed[] = [];
  const texts = [''];
  let linked = false;
  const byTag = new Map<string, Placed[]>();
  const controls = new Map<string, { value: string; at: number }>();
  record.fields.forEach((field, at) => {
    if (!isData(field)) {
      if (!controls.has(field.tag)) controls.set(field.tag, { value: field.value, at });
      return;
    }
    const same = byTag.get(field.tag);
    const rules = rulesOf(field);
    const subfields = new Array<SubfieldAt>(field.subfields.length);
    for (let i = 0; i < subfields.length; i++) {
      const { code, value } = field.subfields[i]!;
      texts.push(value);
      if (code === '6') linked = true;
      subfields[i] = { code, value, i };
    }
    const placed: Placed = {
      field,
      at,
      occurrence: same?.length ?? 0,
      rules,
      definition: fieldDefinition(rules, format),
      subfields,
    };
    if (SUBJECTS.has(field.tag)) subjects.push(placed);
    else if (NAMES.has(field.tag)) names.push(placed);
    if (same) same.push(placed);
    else byTag.set(field.tag, [placed]);
    data.push(placed);
  });
  const text = texts.join('\u001f');
  return {
    record,
    format,
    data,
    subjects,
    names,
    text,
    plain: PLAIN.test(text),
    isbns: (byTag.get('020') ?? NONE).flatMap((p) =>
      subfieldsOf(p, 'a').map(({ code, value, i }) => ({ code, value, i, p, isbn: readIsbn(value) })),
    ),
    tagged: (tag) => byTag.get(tag) ?? NONE,
    control: (tag) => controls.get(tag),
    linked: linked || byTag.has('880'),
    language: controls.get('008')?.value.slice(35, 38).trim() ?? '',
  };
}

function rulesOf(field: DataField): string {
  if (field.tag !== '880') return field.tag;
  return /^(\d{3})-/.exec(field.subfields.find((s) => s.code === '6')?.value ?? '')?.[1] ?? '880';
}

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

/** Index of the last subfield with text of the field itself: no link, no control subfield; -1 for none. */
export function lastTextOf({ subfields }: Placed): number {
  for (let i = subfields.length - 1; i >= 0; i--) if (/[a-tv-z]/.test(subfields[i]!.code)) return i;
  return -1;
}
