import { decodedOnce } from '../../text';
import { ALL_FORMATS, excerpt, safe, setText, type Check } from '../finding';
import { inSubfield } from '../view';

export const twiceEncoded: Check = {
  rule: 'twice-encoded',
  title: 'Text encoded twice',
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
        message: `The text was encoded twice: “${excerpt(value)}” reads “${excerpt(meant)}”.`,
        fix: safe(`Read it as “${excerpt(meant)}”`, setText(p, i, meant)),
      });
    }
  },
};
