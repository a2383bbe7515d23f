import { fieldCodes, fieldDefinition, isLocalTag } from '../../format';
import { ALL_FORMATS, type Check } from '../finding';
import { inSubfield, wholeField } from '../view';

export const notRepeatable: Check = {
  rule: 'repeated-field',
  title: 'Repeated field or subfield that is not repeatable',
  group: 'Structure',
  source: 'MARC 21 formats, repeatability',
  formats: ALL_FORMATS,
  run({ irregular, format, controls, memory }, tell) {
    for (const [i, { tag, at }] of controls.entries())
      if (controls.findIndex((c) => c.tag === tag) < i && fieldDefinition(tag, format)?.repeatable === false)
        tell({
          severity: 'error',
          where: { field: at, tag, occurrence: 1 },
          message: `Field ${tag} is not repeatable; this is a second one.`,
        });
    for (const p of irregular) {
      const { definition } = p;
      if (!definition) continue;
      const { tag } = p.field;
      if (!definition.repeatable && p.occurrence > 0 && tag !== '880' && !isLocalTag(tag))
        tell({
          severity: 'error',
          where: wholeField(p),
          message: `Field ${tag} ${definition.name} is not repeatable; this is a second one.`,
        });
      // 886 carries fields of other formats, with their own rules.
      if (p.subfields.length < 2 || p.rules === '886') continue;
      const { single } = memory.of(fieldCodes, definition);
      let seen = '';
      for (const { code, i } of p.subfields) {
        if (!single.includes(code)) continue;
        if (seen.includes(code) && !isLocalTag(tag))
          tell({
            severity: 'error',
            where: inSubfield(p, i),
            message: `Subfield ${code} of ${tag} is not repeatable.`,
          });
        seen += code;
      }
    }
  },
};
