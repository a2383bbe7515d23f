import { fieldDefinition, isLocalTag, isObsoleteTag } from '../../format';
import { ALL_FORMATS, type Check } from '../finding';
import { soundShapes } from '../shapes';
import { inSubfield, subfieldsOf, wholeField } from '../view';

export const notDefined: Check = {
  rule: 'not-defined',
  title: 'Tag or subfield that the format does not define',
  group: 'Structure',
  source: 'MARC 21 formats, content designation; 9XX, X9X, XX9 and $9 are local',
  formats: ALL_FORMATS,
  run({ data, format, record }, tell) {
    for (const [at, f] of record.fields.entries())
      if (
        'value' in f &&
        !fieldDefinition(f.tag, format) &&
        !isObsoleteTag(f.tag, format) &&
        !isLocalTag(f.tag)
      )
        tell({
          severity: 'warning',
          where: { field: at, tag: f.tag, occurrence: 0 },
          message: `MARC 21 defines no field ${f.tag}.`,
        });
    for (const p of data) {
      if (hasOnlyDefined(p, format)) continue;
      const { tag } = p.field;
      if (isLocalTag(tag) || p.rules === '880') continue;
      const definition = fieldDefinition(p.rules, format);
      if (!definition) {
        if (!isObsoleteTag(tag, format))
          tell({ severity: 'warning', where: wholeField(p), message: `MARC 21 defines no field ${tag}.` });
        continue;
      }
      for (const { code, i } of subfieldsOf(p)) {
        if (definition.subfields?.[code] || code === '9' || definition.obsolete?.includes(code)) continue;
        tell({
          severity: 'warning',
          where: inSubfield(p, i),
          message: `Field ${tag} has no subfield ${code}.`,
        });
      }
    }
  },
};

const hasOnlyDefined = soundShapes((p, format) => {
  const definition = fieldDefinition(p.rules, format);
  return (
    definition !== undefined &&
    p.subfields.every(
      (s) =>
        definition.subfields?.[s.code] !== undefined ||
        s.code === '9' ||
        definition.obsolete?.includes(s.code),
    )
  );
});
