import { formatOf, type Format } from '../format';
import { isData, type DataField, type MarcRecord, type Where } from '../marc';

/** A data field with its index and its occurrence among the fields of its tag. */
export interface Placed {
  readonly field: DataField;
  readonly at: number;
  readonly occurrence: number;
  /** The tag whose rules hold: that of the partner for an 880, else the field's own. */
  readonly rules: string;
}

/** A record taken apart once for all checks. */
export interface RecordView {
  readonly record: MarcRecord;
  readonly format: Format;
  /** Data fields in order. */
  readonly data: readonly Placed[];
  /** Data fields of one tag. */
  tagged(tag: string): readonly Placed[];
  /** The first control field of a tag, with its index. */
  control(tag: string): { readonly value: string; readonly at: number } | undefined;
  /** 008/35–37, empty when there is none. */
  readonly language: string;
}

const NONE: readonly Placed[] = [];

export function viewOf(record: MarcRecord): RecordView {
  const data: Placed[] = [];
  const byTag = new Map<string, Placed[]>();
  const controls = new Map<string, { value: string; at: number }>();
  record.fields.forEach((field, at) => {
    if (!isData(field)) {
      if (!controls.has(field.tag)) controls.set(field.tag, { value: field.value, at });
      return;
    }
    const same = byTag.get(field.tag);
    const placed = { field, at, occurrence: same?.length ?? 0, rules: rulesOf(field) };
    if (same) same.push(placed);
    else byTag.set(field.tag, [placed]);
    data.push(placed);
  });
  return {
    record,
    format: formatOf(record.leader),
    data,
    tagged: (tag) => byTag.get(tag) ?? NONE,
    control: (tag) => controls.get(tag),
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
export function inSubfield(p: Placed, subfield: number, start?: number, end?: number): Where {
  return { ...wholeField(p), subfield, code: p.field.subfields[subfield]?.code, start, end };
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

/** A subfield with its place in the field. */
export interface SubfieldAt {
  readonly code: string;
  readonly value: string;
  readonly i: number;
}
export function* subfieldsOf(p: Placed, codes?: string): Iterable<SubfieldAt> {
  const { subfields } = p.field;
  for (let i = 0; i < subfields.length; i++) {
    const { code, value } = subfields[i]!;
    if (codes === undefined || codes.includes(code)) yield { code, value, i };
  }
}
