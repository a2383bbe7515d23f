import type { DataField, MarcRecord } from '../marc';
import { formOfAuthority } from './merge-form';
import { ownPart } from './own-part';
import { punctuationOf, withForm } from './rewrite-field';

/**
 * An access field in which the kept form of a heading stands for what was typed of it: relators and the rest of the field stay, marks
 * are as the record has them. `kept` is the 1XX of the heading.
 */
export function completedField(f: DataField, kept: DataField, record: MarcRecord): DataField {
  const form = formOfAuthority({ leader: '', fields: [kept] });
  const part = ownPart(f);
  if (!form) return f;
  if (!part || part.at.length === 0) return { ...f, subfields: [...form.subfields, ...f.subfields] };
  return withForm(f, part, form, punctuationOf(record));
}
