import { fieldDefinition, isLocalTag, subfieldIsRepeatable } from '../../format';
import { ALL_FORMATS, type Check } from '../finding';
import { soundShapes } from '../shapes';
import { inSubfield, subfieldsOf, wholeField } from '../view';

export const notRepeatable: Check = {
  rule: 'not-repeatable',
  title: 'Field or subfield repeated that is not repeatable',
  group: 'Structure',
  source: 'MARC 21 formats, repeatability',
  formats: ALL_FORMATS,
  run({ data, format, record }, tell) {
    const seenControl = new Set<string>();
    for (const [at, f] of record.fields.entries()) {
      if (!('value' in f)) continue;
      if (seenControl.has(f.tag) && fieldDefinition(f.tag, format)?.repeatable === false)
        tell({
          severity: 'error',
          where: { field: at, tag: f.tag, occurrence: 1 },
          message: `${f.tag} is not repeatable; this is one more.`,
        });
      seenControl.add(f.tag);
    }
    for (const p of data) {
      const definition = fieldDefinition(p.rules, format);
      if (!definition || isLocalTag(p.field.tag)) continue;
      if (!definition.repeatable && p.occurrence > 0 && p.field.tag !== '880')
        tell({
          severity: 'error',
          where: wholeField(p),
          message: `${p.field.tag} ${definition.name} is not repeatable; this is one more.`,
        });
      if (p.subfields.length < 2 || repeatsRightly(p, format)) continue;
      let seen = '';
      for (const { code, i } of subfieldsOf(p)) {
        if (
          seen.includes(code) &&
          definition.subfields?.[code] &&
          !subfieldIsRepeatable(p.rules, code, format)
        )
          tell({
            severity: 'error',
            where: inSubfield(p, i),
            message: `Subfield ${code} of ${p.field.tag} is not repeatable.`,
          });
        seen += code;
      }
    }
  },
};

const repeatsRightly = soundShapes((p, format) => {
  const codes = p.subfields.map((s) => s.code);
  return codes.every((c, i) => codes.indexOf(c) === i || subfieldIsRepeatable(p.rules, c, format));
});
