import { ALL_FORMATS, excerpt, type Check } from '../finding';
import { inSubfield } from '../view';

export const replacementCharacter: Check = {
  rule: 'replacement-character',
  title: 'Lost character',
  group: 'Characters',
  source: 'The Unicode Standard, U+FFFD',
  formats: ALL_FORMATS,
  each: true,
  run({ data, text }, tell) {
    if (!text.includes('\ufffd')) return;
    for (const p of data)
      for (const { code, value, i } of p.subfields) {
        const at = value.indexOf('\ufffd');
        if (at >= 0)
          tell({
            severity: 'error',
            where: inSubfield(p, i, at, at + 1),
            message: `A character was lost in ${p.field.tag} $${code}: “${excerpt(value.slice(Math.max(0, at - 12)))}”.`,
          });
      }
  },
};
