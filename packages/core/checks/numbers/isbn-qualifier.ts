import { change, safe, type Check } from '../finding';
import { inSubfield } from '../view';

export const isbnQualifier: Check = {
  rule: 'isbn-qualifier',
  title: 'Qualifier or price inside the ISBN',
  group: 'Numbers',
  source: 'MARC 21, 020 $q (2013) and $c',
  needs: ['020'],
  each: true,
  run({ isbns }, tell) {
    for (const { p, i, value, isbn } of isbns) {
      if (!isbn?.rest || isbn.problem) continue;
      const text = isbn.rest.replace(/^[(:\s]+|[)\s:]+$/g, '');
      if (text === '') continue;
      const subfields = p.field.subfields.flatMap((x, k) =>
        k === i
          ? [
              { code: 'a', value: isbn.digits },
              { code: /\d[.,]\d\d/.test(text) ? 'c' : 'q', value: text },
            ]
          : [x],
      );
      tell({
        severity: 'advice',
        where: inSubfield(p, i, value.indexOf(isbn.rest)),
        message: `“${isbn.rest}” stands in the ISBN; a qualifier belongs in $q, a price in $c.`,
        fix: safe('Move it out of the number', change(p, { subfields })),
      });
    }
  },
};
