import { readIsbn } from '../../access';
import { change, safe, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const isbnQualifier: Check = {
  rule: 'isbn-qualifier',
  title: 'Qualifier or price inside the ISBN',
  group: 'Numbers',
  source: 'MARC 21, 020 $q (2013) and $c',
  *run(view) {
    for (const p of view.tagged('020'))
      for (const { value, i } of subfieldsOf(p, 'a')) {
        const isbn = readIsbn(value);
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
        yield {
          severity: 'advice',
          where: inSubfield(p, i, value.indexOf(isbn.rest)),
          message: `“${isbn.rest}” stands in the ISBN; a qualifier belongs in $q, a price in $c.`,
          fix: safe('Move it out of the number', change(p, { subfields })),
        };
      }
  },
};
