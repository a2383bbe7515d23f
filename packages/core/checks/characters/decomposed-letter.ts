import { ALL_FORMATS, safe, setText, type Check } from '../finding';
import { inSubfield } from '../view';

export const notComposed: Check = {
  rule: 'decomposed-letter',
  title: 'Decomposed letter',
  group: 'Characters',
  source: 'Unicode Standard, annex 15 (NFC)',
  formats: ALL_FORMATS,
  each: true,
  run({ foreign }, tell) {
    for (const { p, value, i } of foreign) {
      if (!/[\u0300-\uffff]/.test(value)) continue;
      const composed = value.normalize('NFC');
      if (composed !== value)
        tell({
          severity: 'advice',
          where: inSubfield(p, i),
          message:
            'Letters and diacritics are separate characters (not NFC). Search and sort expect them composed.',
          fix: safe('Compose them', setText(p, i, composed)),
        });
    }
  },
};
