import { fieldCodes, fieldDefinition, isLocalTag } from '../../format';
import { ALL_FORMATS, type Check } from '../finding';
import { inSubfield, wholeField } from '../view';

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
      const { definition } = p;
      if (!definition) continue;
      const { tag } = p.field;
      if (!definition.repeatable && p.occurrence > 0 && tag !== '880' && !isLocalTag(tag))
        tell({
          severity: 'error',
          where: wholeField(p),
          message: `${tag} ${definition.name} is not repeatable; this is one more.`,
        });
      // 886 carries fields of other formats, with their own rules.
      if (p.subfields.length < 2 || p.rules === '886') continue;
      const { single } = fieldCodes(definition);
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
