import type { HouseRules } from '../house';
import { isData, type DataField, type MarcRecord, type RecordEdit, type Where } from '../marc';

export type Severity = 'error' | 'warning' | 'advice';

/** Something a check noticed. */
export interface Finding {
  readonly rule: string;
  readonly severity: Severity;
  readonly where: Where;
  /** A sentence for a person. */
  readonly message: string;
  readonly fix?: Fix;
}

/** How a finding is mended: safe ones can be applied unseen. */
export interface Fix {
  readonly sentence: string;
  readonly safe: boolean;
  readonly edits: readonly RecordEdit[];
}

/** One check: `source` names the published rule, or says "common practice, no source". */
export interface Check {
  readonly rule: string;
  readonly title: string;
  readonly source: string;
  run(record: MarcRecord, house: HouseRules): Iterable<Omit<Finding, 'rule'>>;
}

/** A data field with its index and its occurrence among the fields of its tag. */
export interface Placed {
  readonly field: DataField;
  readonly at: number;
  readonly occurrence: number;
}

/** The data fields of a tag (or tags that match) with their places. */
export function placed(record: MarcRecord, tag: string | RegExp): Placed[] {
  const seen = new Map<string, number>();
  const found: Placed[] = [];
  record.fields.forEach((f, at) => {
    const occurrence = seen.get(f.tag) ?? 0;
    seen.set(f.tag, occurrence + 1);
    if (isData(f) && (typeof tag === 'string' ? f.tag === tag : tag.test(f.tag)))
      found.push({ field: f, at, occurrence });
  });
  return found;
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
