import { controlValue, isData, type DataField, type Field, type MarcRecord, type Subfield } from '../marc';
import type { Tags, Which } from './step-values';

/** Whether a tag fits a pattern of three characters, in which `.` stands for any (`6..`). */
export function matchesTags(tag: string, pattern: Tags): boolean {
  if (tag.length !== 3 || pattern.length !== 3) return false;
  for (let i = 0; i < 3; i++) if (pattern[i] !== '.' && pattern[i] !== tag[i]) return false;
  return true;
}

/** The record with its fields mapped; null takes one away. The same record when nothing changed. */
export function mapFields(record: MarcRecord, map: (f: Field) => Field | null): MarcRecord {
  let changed = false;
  const fields: Field[] = [];
  for (const f of record.fields) {
    const next = map(f);
    if (next !== f) changed = true;
    if (next) fields.push(next);
  }
  return changed ? { ...record, fields } : record;
}

/** Maps data fields of some tags. */
export const mapData = (
  record: MarcRecord,
  tags: Tags,
  map: (f: DataField) => DataField | null,
): MarcRecord => mapFields(record, (f) => (isData(f) && matchesTags(f.tag, tags) ? map(f) : f));

/** Maps the text of subfields with one of these codes (all letters when none is named); the same field when nothing changed. */
export function mapTexts(f: DataField, codes: string, map: (text: string) => string): DataField {
  let changed = false;
  const subfields = f.subfields.map((s) => {
    if (codes === '' ? s.code < 'a' || s.code > 'z' : !codes.includes(s.code)) return s;
    const value = map(s.value);
    if (value === s.value) return s;
    changed = true;
    return { ...s, value };
  });
  return changed ? { ...f, subfields } : f;
}

/** A field without some of its subfields, null when none with text is left; the same field when none goes. */
export function without(f: DataField, goes: (s: Subfield, i: number) => boolean): DataField | null {
  const subfields = f.subfields.filter((s, i) => !goes(s, i));
  if (subfields.length === f.subfields.length) return f;
  return subfields.some((s) => s.code >= 'a') ? { ...f, subfields } : null;
}

/** Those of some indexes that `which` means. */
export function chosen(indexes: readonly number[], which: Which): Set<number> {
  if (which === 'all') return new Set(indexes);
  return new Set(which === 'first' ? indexes.slice(0, 1) : indexes.slice(-1));
}

/** All text of a field in a line. */
export const textOf = (f: Field): string =>
  'value' in f ? f.value : f.subfields.map((s) => s.value).join(' ');

/** The tags of subject headings with subdivisions. */
export const SUBDIVIDED = /^6(00|10|11|30|47|48|50|51|55)$/;

/** 008/35–37, empty when there is none. */
export const languageOf = (record: MarcRecord): string => controlValue(record, '008')?.slice(35, 38) ?? '';
