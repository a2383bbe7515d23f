import { isData, type Field, type MarcRecord } from './record';

/** One edit of a record, as a value. Indexes count the fields as they are when the edit is applied. */
export type RecordEdit =
  | { readonly op: 'leader'; readonly leader: string }
  | { readonly op: 'insert'; readonly at: number; readonly field: Field }
  | { readonly op: 'remove'; readonly at: number }
  | { readonly op: 'replace'; readonly at: number; readonly field: Field }
  | { readonly op: 'text'; readonly at: number; readonly subfield: number; readonly value: string };

/** Applies edits in order and gives the new record; an edit that points nowhere throws a RangeError. */
export function applyEdits(record: MarcRecord, edits: readonly RecordEdit[]): MarcRecord {
  return edits.reduce(applyEdit, record);
}

function applyEdit(record: MarcRecord, edit: RecordEdit): MarcRecord {
  if (edit.op === 'leader') return { ...record, leader: edit.leader };
  const fields = [...record.fields];
  const there = fields[edit.at];
  if (edit.op === 'insert') {
    fields.splice(edit.at, 0, edit.field);
  } else if (!there) {
    throw new RangeError(`The record has no field at ${edit.at}.`);
  } else if (edit.op === 'remove') {
    fields.splice(edit.at, 1);
  } else if (edit.op === 'replace') {
    fields[edit.at] = edit.field;
  } else {
    if (!isData(there) || !there.subfields[edit.subfield])
      throw new RangeError(`Field ${there.tag} has no subfield at ${edit.subfield}.`);
    fields[edit.at] = {
      ...there,
      subfields: there.subfields.map((s, i) => (i === edit.subfield ? { ...s, value: edit.value } : s)),
    };
  }
  return { ...record, fields };
}

/** Where a new field of this tag goes: after the last field whose tag is not higher, so order otherwise stays. */
export function placeFor(record: MarcRecord, tag: string): number {
  let at = 0;
  record.fields.forEach((f, i) => {
    if (f.tag <= tag) at = i + 1;
  });
  return at;
}

/** The record with one more field, where fields of its tag go. */
export function withField(record: MarcRecord, field: Field): MarcRecord {
  const at = placeFor(record, field.tag);
  return { ...record, fields: [...record.fields.slice(0, at), field, ...record.fields.slice(at)] };
}
