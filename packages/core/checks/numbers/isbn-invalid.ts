import { change, look, type Check } from '../finding';
import { inSubfield } from '../view';

export const isbnForm: Check = {
  rule: 'isbn-invalid',
  title: 'Invalid ISBN',
  group: 'Numbers',
  source: 'ISO 2108:2017, annex B; MARC 21, 020 $a and $z',
  needs: ['020'],
  each: true,
  run({ isbns }, tell) {
    for (const { p, i, value, isbn } of isbns) {
      if (isbn && !isbn.problem) continue;
      const asWrong = p.field.subfields.map((x, k) => (k === i ? { ...x, code: 'z' } : x));
      const price = /^[£$€¥]|\d[.,]\d\d\b/.test(value);
      tell({
        // A number of another length may be one of the standard book numbers before the ISBN.
        severity: isbn && [10, 13].includes(isbn.digits.length) ? 'error' : 'warning',
        where: inSubfield(p, i),
        message: isbn?.problem ?? `“${value}” is no ISBN.`,
        fix:
          price && !isbn
            ? look(
                'Move it to $c (price)',
                change(p, { subfields: asWrong.map((x) => (x.code === 'z' ? { ...x, code: 'c' } : x)) }),
              )
            : look('Move it to $z (invalid ISBN)', change(p, { subfields: asWrong })),
      });
    }
  },
};
