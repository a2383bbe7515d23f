import { readIsbn } from '../../access';
import { change, look, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const isbnForm: Check = {
  rule: 'isbn-form',
  title: 'ISBN that is not right',
  group: 'Numbers',
  source: 'ISO 2108:2017, annex B; MARC 21, 020 $a and $z',
  *run(view) {
    for (const p of view.tagged('020'))
      for (const { value, i } of subfieldsOf(p, 'a')) {
        const isbn = readIsbn(value);
        if (isbn && !isbn.problem) continue;
        const asWrong = p.field.subfields.map((x, k) => (k === i ? { ...x, code: 'z' } : x));
        const price = /^[£$€¥]|\d[.,]\d\d\b/.test(value);
        yield {
          severity: 'error',
          where: inSubfield(p, i),
          message: isbn?.problem ?? `“${value}” is no ISBN.`,
          fix:
            price && !isbn
              ? look(
                  'Make it the price ($c)',
                  change(p, { subfields: asWrong.map((x) => (x.code === 'z' ? { ...x, code: 'c' } : x)) }),
                )
              : look('Keep it as a wrong ISBN in $z', change(p, { subfields: asWrong })),
        };
      }
  },
};
