import { codeMeaning, fieldCodes, isObsoleteTag } from '../../format';
import { type Check } from '../finding';
import { inSubfield, subfieldsOf, wholeField } from '../view';

export const obsolete: Check = {
  rule: 'obsolete',
  title: 'Obsolete field, subfield or indicator',
  group: 'Structure',
  source: 'MARC 21 Format for Bibliographic Data, content designators made obsolete',
  run({ irregular, format, controls, memory }, tell) {
    for (const { at, tag } of [...controls, ...irregular.map(({ at, field }) => ({ at, tag: field.tag }))])
      if (isObsoleteTag(tag, format) && tag !== '440')
        tell({
          severity: 'advice',
          where: { field: at, tag, occurrence: 0 },
          message: `Field ${tag} is obsolete.`,
        });
    for (const p of irregular) {
      const { definition } = p;
      if (!definition || !memory.of(fieldCodes, definition).aged) continue;
      if (definition.indicators)
        for (const which of [1, 2] as const) {
          const known = definition.indicators[which - 1];
          const value = which === 1 ? p.field.ind1 : p.field.ind2;
          if (!known?.obsolete || known.values[value] !== undefined) continue;
          if (
            codeMeaning(value, known.obsolete) === undefined ||
            codeMeaning(value, known.values) !== undefined
          )
            continue;
          tell({
            severity: 'advice',
            where: wholeField(p),
            message: `Indicator ${which} of ${p.field.tag}: the value ${value === ' ' ? 'blank' : value} is obsolete.`,
          });
        }
      if (!definition.obsolete) continue;
      for (const { code, i } of subfieldsOf(p))
        if (definition.obsolete.includes(code) && !definition.subfields?.[code])
          tell({
            severity: 'advice',
            where: inSubfield(p, i),
            message: `Subfield ${code} of ${p.field.tag} is obsolete.`,
          });
    }
  },
};
