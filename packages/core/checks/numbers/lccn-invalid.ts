import { type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

/** Prefix of up to three letters, year of two digits and number of six (to 2000), or of four and six (since 2001). */
const FORMS = [/^[a-z ]{3}\d{8} ?(\/.*)?$/, /^[a-z ]{2}\d{10}$/];

export const lccnForm: Check = {
  rule: 'lccn-invalid',
  title: 'Invalid LC control number',
  group: 'Numbers',
  source: 'MARC 21, 010 (structure of the LC control number)',
  needs: ['010'],
  each: true,
  run(view, tell) {
    for (const p of view.tagged('010'))
      for (const { value, i } of subfieldsOf(p, 'a'))
        if (!FORMS.some((f) => f.test(value)) && !/^\s*[a-z]{0,3} *\d{8,10}\s*(\/.*)?$/.test(value))
          tell({
            severity: 'warning',
            where: inSubfield(p, i),
            message: `“${value.trim()}” is not an LC control number.`,
          });
  },
};
