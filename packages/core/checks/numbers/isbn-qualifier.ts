import type { Subfield } from '../../marc';
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
      const parts = partsOf(isbn.rest);
      if (parts.length === 0) continue;
      const subfields = p.field.subfields.flatMap((x, k) =>
        k === i ? [{ code: 'a', value: isbn.digits }, ...parts] : [x],
      );
      tell({
        severity: 'advice',
        where: inSubfield(p, i, value.indexOf(isbn.rest)),
        message: `“${isbn.rest}” in the ISBN: a qualifier belongs in $q, a price in $c.`,
        fix: safe('Move it to its subfield', change(p, { subfields })),
      });
    }
  },
};

/** Each bracket is a qualifier of its own, what stands outside them a price when it looks like one. */
function partsOf(rest: string): Subfield[] {
  return rest
    .split(/[()]/)
    .map((text) => text.replace(/^[\s:;,]+|[\s:;,]+$/g, ''))
    .filter((text) => text !== '')
    .map((value) => ({ code: /\d[.,]\d\d\b/.test(value) ? 'c' : 'q', value }));
}
