import { decodedOnce } from '../../text';
import { ALL_FORMATS, excerpt, safe, setText, type Check } from '../finding';
import { inSubfield } from '../view';

export const twiceEncoded: Check = {
  rule: 'double-encoded',
  title: 'Double-encoded text',
  group: 'Characters',
  source: 'The Unicode Standard, section 3.9 (UTF-8); common practice',
  formats: ALL_FORMATS,
  each: true,
  run({ foreign }, tell) {
    for (const { p, value, i } of foreign) {
      const meant = decodedOnce(value);
      if (meant === null) continue;
      tell({
        severity: 'error',
        where: inSubfield(p, i),
        message: `Double-encoded UTF-8: “${excerpt(value)}” should read “${excerpt(meant)}”.`,
        fix: safe(`Replace with “${excerpt(meant)}”`, setText(p, i, meant)),
      });
    }
  },
};
