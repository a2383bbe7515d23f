import { readIsbn, type IsbnReading } from '../access';
import { fieldDefinition, formatOf, type FieldDefinition, type Format } from '../format';
import { isData, type DataField, type MarcRecord, type Where } from '../marc';
import { hasSoundShape } from './shape';

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

export interface ControlAt {
  readonly tag: string;
  readonly value: string;
  readonly at: number;
}
export interface ForeignText extends SubfieldAt {
  readonly p: Placed;
}

/** A record taken apart once for all checks. */
export interface RecordView {
  readonly record: MarcRecord;
  readonly format: Format;
  /** The tags of its data fields, each once, in the order of their first. */
  readonly tags: string;
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
  /** All texts of data fields with a unit separator between them, for a first look. */
  readonly text: string;
  /** Every 020 $a with what stands there as an ISBN. */
  readonly isbns: readonly IsbnAt[];
  /** Whether any field is linked to one in another script ($6), or is one. */
  readonly linked: boolean;
  /** 008/35–37, empty when there is none. */
  readonly language: string;
}

const NONE: readonly Placed[] = [];
const NO_TEXTS: readonly ForeignText[] = [];
const PREFIX: Record<Format, string> = { bibliographic: '', authority: 'a', holdings: 'h' };
const NO_SUBFIELDS: readonly SubfieldAt[] = [];
const PLAIN = /^[ -~\u001f]*$/;
export const SUBJECT_TAGS = ['600', '610', '611', '630', '647', '648', '650', '651', '655'];
export const NAME_TAGS = ['100', '110', '111', '700', '710', '711'];
const SUBJECTS = new Set(SUBJECT_TAGS);
const NAMES = new Set(NAME_TAGS);

export function viewOf(record: MarcRecord): RecordView {
  const format = formatOf(record.leader);
  const data: Placed[] = [];
  const subjects: Placed[] = [];
  const names: Placed[] = [];
  const irregular: Placed[] = [];
  const byTag = new Map<string, Placed[]>();
  const controls: ControlAt[] = [];
  let text = '';
  let tags = '';
  let linked = false;
  let hollow = false;
  let ragged = false;
  const { fields } = record;
  for (let at = 0; at < fields.length; at++) {
    const field = fields[at]!;
    const { tag } = field;
    if (!isData(field)) {
      controls.push({ tag, value: field.value, at });
      continue;
    }
    const same = byTag.get(tag);
    const rules = rulesOf(field);
    const subfields = new Array<SubfieldAt>(field.subfields.length);
    let codes = '';
    for (let i = 0; i < subfields.length; i++) {
      const { code, value } = field.subfields[i]!;
      text += `\u001f${value}`;
      codes += code;
      if (code === '6') linked = true;
      const first = value.charCodeAt(0);
      if (value === '' || ((first <= 0x20 || first >= 0xa0) && value.trim() === '')) hollow = true;
      if (first === 0x20 || value.charCodeAt(value.length - 1) === 0x20) ragged = true;
      subfields[i] = { code, value, i };
    }
    if (subfields.length === 0) hollow = true;
    const definition = fieldDefinition(rules, format);
    const placed: Placed = { field, at, occurrence: same?.length ?? 0, rules, definition, subfields };
    if (
      (same && !definition?.repeatable) ||
      !hasSoundShape(PREFIX[format] + rules, definition, field.ind1, field.ind2, codes)
    )
      irregular.push(placed);
    const first = tag.charCodeAt(0);
    if (first === 0x36 && SUBJECTS.has(tag)) subjects.push(placed);
    else if ((first === 0x31 || first === 0x37) && NAMES.has(tag)) names.push(placed);
    if (same) same.push(placed);
    else {
      byTag.set(tag, [placed]);
      tags += `${tag} `;
    }
    data.push(placed);
  }
  const tagged = (tag: string) => byTag.get(tag) ?? NONE;
  const control = (tag: string) => controls.find((c) => c.tag === tag);
  const others = byTag.get('880');
  return {
    record,
    format,
    tags,
    data,
    subjects,
    names,
    irregular,
    hollow,
    ragged,
    text,
    foreign: PLAIN.test(text) ? NO_TEXTS : foreignTexts(data),
    isbns: tagged('020').flatMap((p) =>
      subfieldsOf(p, 'a').map(({ code, value, i }) => ({ code, value, i, p, isbn: readIsbn(value) })),
    ),
    tagged,
    ruled(tags) {
      let found: Placed[] | undefined;
      for (const tag of tags) {
        const own = byTag.get(tag);
        if (own) found = found ? [...found, ...own] : own;
      }
      const linkedTo = others?.filter((p) => p.rules !== '880' && tags.includes(p.rules));
      return linkedTo?.length ? [...(found ?? NONE), ...linkedTo] : (found ?? NONE);
    },
    controls,
    control,
    linked: linked || others !== undefined,
    language: control('008')?.value.slice(35, 38).trim() ?? '',
  };
}

function foreignTexts(data: readonly Placed[]): ForeignText[] {
  const found: ForeignText[] = [];
  for (const p of data)
    for (const { code, value, i } of p.subfields) if (!PLAIN.test(value)) found.push({ code, value, i, p });
  return found;
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
