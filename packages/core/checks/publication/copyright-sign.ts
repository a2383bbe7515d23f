import { look, safe, setText, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const copyrightSign: Check = {
  rule: 'copyright-sign',
  title: 'Copyright date without © or in the wrong 264',
  group: 'Publication and description',
  source: 'MARC 21, 264 second indicator 4 (copyright notice date)',
  needs: ['264'],
  each: true,
  run(view, tell) {
    for (const p of view.tagged('264'))
      for (const { value, i } of subfieldsOf(p, 'c')) {
        const where = inSubfield(p, i);
        if (p.field.ind2 === '4' && !/[©℗]|copyright|phonogram/i.test(value)) {
          const corrected = value.replace(/^[cp]?(?=\d{4})/, value.startsWith('p') ? '℗' : '©');
          tell({
            severity: 'warning',
            where,
            message: `A copyright date has © or ℗; “${value}” lacks it.`,
            ...(corrected !== value && { fix: safe(`Write ${corrected}`, setText(p, i, corrected)) }),
          });
        } else if (p.field.ind2 === '1' && /^[[]?[c©]\s?\d{4}/.test(value))
          tell({
            severity: 'advice',
            where,
            message: `“${value}” is a copyright date; it belongs in a separate 264 with second indicator 4.`,
            fix: look('Delete the sign', setText(p, i, value.replace(/[c©]\s?(?=\d{4})/, ''))),
          });
      }
  },
};
