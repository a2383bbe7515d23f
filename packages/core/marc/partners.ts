import { isControl, type Field, type MarcRecord } from './record';

/** A field with its index in the record. */
export interface FieldAt {
  readonly at: number;
  readonly field: Field;
}

/**
 * The fields in order, each 880 moved under the field that it belongs to (MARC 21, appendix A: control subfield 6); one whose
 * partner is not there stands last.
 */
export function withPartners(record: MarcRecord): FieldAt[] {
  const rows = record.fields.map((field, at) => ({ at, field }));
  const others = rows.filter((r) => r.field.tag !== '880');
  for (const p of rows.filter((r) => r.field.tag === '880')) {
    const [tag, number] = [linkOf(p.field).slice(0, 3), linkOf(p.field).slice(4, 6)];
    const at = others.findIndex((o) => o.field.tag === tag && linkOf(o.field) === `880-${number}`);
    others.splice(at < 0 ? others.length : at + 1, 0, p);
  }
  return others;
}

const linkOf = (f: Field) => (isControl(f) ? '' : (f.subfields.find((s) => s.code === '6')?.value ?? ''));
