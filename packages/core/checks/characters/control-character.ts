import { ALL_FORMATS, safe, setText, type Check } from '../finding';
import { inSubfield } from '../view';

/** Controls, but for the non-sorting marks and joiners that MARC 21 allows; byte order marks inside a text. */
const STRAY = /[\u0000-\u001f\u007f-\u0097\u0099-\u009b\u009d-\u009f\ufeff]/;
const ALL = new RegExp(STRAY, 'g');

export const controlCharacter: Check = {
  rule: 'control-character',
  title: 'Control character',
  group: 'Characters',
  source: 'MARC 21 Specifications: Character Sets, control function codes',
  formats: ALL_FORMATS,
  each: true,
  run({ foreign }, tell) {
    for (const { p, code, value, i } of foreign) {
      const at = value.search(STRAY);
      if (at < 0) continue;
      const point = value.charCodeAt(at).toString(16).toUpperCase().padStart(4, '0');
      const corrected = value
        .replace(/[\t\n\r]+/g, ' ')
        .replace(ALL, '')
        .replace(/ {2,}/g, ' ');
      tell({
        severity: 'warning',
        where: inSubfield(p, i, at, at + 1),
        message: `Control character U+${point} in ${p.field.tag} $${code}.`,
        fix: safe('Delete the character', setText(p, i, corrected)),
      });
    }
  },
};
