import { ALL_FORMATS, dropSubfield, remove, safe, type Check } from '../finding';
import { inSubfield, subfieldsOf, wholeField } from '../view';

export const emptySubfield: Check = {
  rule: 'empty-subfield',
  title: 'Empty field or subfield',
  group: 'Structure',
  source: 'common practice, no source',
  formats: ALL_FORMATS,
  each: true,
  run({ data, hollow }, tell) {
    if (!hollow) return;
    for (const p of data) {
      const { tag, subfields } = p.field;
      if (subfields.length === 0)
        tell({
          severity: 'warning',
          where: wholeField(p),
          message: `Field ${tag} has no subfield.`,
          fix: safe(`Delete field ${tag}`, remove(p)),
        });
      for (const { code, value, i } of subfieldsOf(p)) {
        if (value !== '' && value.trim() !== '') continue;
        const edit = dropSubfield(p, i);
        tell({
          severity: 'warning',
          where: inSubfield(p, i),
          message: `Subfield ${code} of ${tag} is empty.`,
          fix: safe(edit.op === 'remove' ? `Delete field ${tag}` : `Delete subfield ${code}`, edit),
        });
      }
    }
  },
};
