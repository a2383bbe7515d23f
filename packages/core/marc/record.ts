/** A MARC 21 record as an immutable value (ISO 2709 structure without its transport). */
export interface MarcRecord {
  /** 24 characters; lengths and base address in it are recomputed on writing. */
  readonly leader: string;
  /** In the order of the directory. */
  readonly fields: readonly Field[];
}

export type Field = ControlField | DataField;

/** 001–009: a tag and its text. */
export interface ControlField {
  readonly tag: string;
  readonly value: string;
}

/** 010–999: two indicators and subfields. */
export interface DataField {
  readonly tag: string;
  readonly ind1: string;
  readonly ind2: string;
  readonly subfields: readonly Subfield[];
}

/** One subfield: its code (one character) and its value. */
export interface Subfield {
  readonly code: string;
  readonly value: string;
}

/** Whether a field is a control field (00X). */
export const isControl = (field: Field): field is ControlField => 'value' in field;
/** Whether a field has indicators and subfields. */
export const isData = (field: Field): field is DataField => 'subfields' in field;

/** Data fields of a tag, or of tags that match a pattern such as `6..`. */
export function dataFields(record: MarcRecord, tag: string | RegExp): DataField[] {
  return record.fields.filter(
    (f): f is DataField => isData(f) && (typeof tag === 'string' ? f.tag === tag : tag.test(f.tag)),
  );
}

/** The text of the first control field with this tag. */
export function controlValue(record: MarcRecord, tag: string): string | undefined {
  const field = record.fields.find((f) => f.tag === tag);
  return field && isControl(field) ? field.value : undefined;
}

/** Values of all subfields with one of these codes, in order. */
export function values(field: DataField, codes: string): string[] {
  return field.subfields.filter((s) => codes.includes(s.code)).map((s) => s.value);
}

/** The first subfield value with this code. */
export function first(field: DataField | undefined, code: string): string | undefined {
  return field?.subfields.find((s) => s.code === code)?.value;
}

/** First value of tag and code in the record. */
export function firstValue(record: MarcRecord, tag: string, code: string): string | undefined {
  for (const field of dataFields(record, tag)) {
    const value = first(field, code);
    if (value !== undefined) return value;
  }
  return undefined;
}

/** Makes a data field: `field('245', '10', 'a', 'Title /', 'c', 'Name.')`. */
export function field(tag: string, indicators: string, ...pairs: string[]): DataField {
  const subfields: Subfield[] = [];
  for (let i = 0; i + 1 < pairs.length; i += 2) subfields.push({ code: pairs[i]!, value: pairs[i + 1]! });
  return { tag, ind1: indicators[0] ?? ' ', ind2: indicators[1] ?? ' ', subfields };
}

/** Plain text of a field as it is shown: `245 10 $aTitle /$cName.`; blanks in indicators as `#`. To be read back: `lineOf`. */
export function fieldText(f: Field): string {
  if (isControl(f)) return `${f.tag}    ${f.value}`;
  const indicators = (f.ind1 + f.ind2).replaceAll(' ', '#');
  return `${f.tag} ${indicators} ${f.subfields.map((s) => `$${s.code}${s.value}`).join('')}`;
}

/** The text of a data field's subfields joined by blanks, linkage and control subfields left out. */
export function runningText(f: DataField, codes?: string): string {
  return f.subfields
    .filter((s) => (codes ? codes.includes(s.code) : /[a-z]/.test(s.code)))
    .map((s) => s.value)
    .join(' ');
}
