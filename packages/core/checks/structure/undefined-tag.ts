import { fieldCodes, fieldDefinition, isLocalTag, isObsoleteTag, type FieldCodes } from '../../format';
import { ALL_FORMATS, type Check } from '../finding';
import { inSubfield, subfieldsOf, wholeField, type Placed } from '../view';

export const notDefined: Check = {
  rule: 'undefined-tag',
  title: 'Undefined tag or subfield',
  group: 'Structure',
  source: 'MARC 21 formats, content designation; 9XX, X9X, XX9 and $9 are local',
  formats: ALL_FORMATS,
  run({ irregular, format, controls, memory }, tell) {
    for (const { tag, at } of controls)
      if (!fieldDefinition(tag, format) && !isObsoleteTag(tag, format) && !isLocalTag(tag))
        tell({
          severity: 'warning',
          where: { field: at, tag, occurrence: 0 },
          message: `Field ${tag} is not defined in MARC 21.`,
        });
    for (const p of irregular) {
      const { definition } = p;
      if (definition && hasOnlyDefined(p, memory.of(fieldCodes, definition))) continue;
      const { tag } = p.field;
      if (isLocalTag(tag) || p.rules === '880') continue;
      if (!definition) {
        if (!isObsoleteTag(tag, format))
          tell({
            severity: 'warning',
            where: wholeField(p),
            message: `Field ${tag} is not defined in MARC 21.`,
          });
        continue;
      }
      for (const { code, i } of subfieldsOf(p)) {
        if (definition.subfields?.[code] || code === '9' || definition.obsolete?.includes(code)) continue;
        tell({
          severity: 'warning',
          where: inSubfield(p, i),
          message: `Subfield ${code} is not defined in field ${tag}.`,
        });
      }
    }
  },
};

function hasOnlyDefined(p: Placed, { defined }: FieldCodes): boolean {
  for (const { code } of p.subfields) if (!defined.includes(code)) return false;
  return true;
}
