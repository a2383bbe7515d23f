import { isbn13From } from '../../access';
import { safe, type Check } from '../finding';
import { inSubfield } from '../view';

export const isbn13Missing: Check = {
  rule: 'isbn-13-missing',
  title: 'ISBN-13 missing',
  group: 'Numbers',
  source: 'ISO 2108:2017 (thirteen digits since 2007)',
  needs: ['020'],
  run({ isbns: all }, tell) {
    for (const { p, i, isbn } of all) {
      if (!isbn?.isbn13 || isbn.problem || isbn.digits.length !== 10) continue;
      if (all.some((o) => o.isbn?.digits === isbn.isbn13)) continue;
      const wanted = isbn13From(isbn.digits);
      tell({
        severity: 'advice',
        where: inSubfield(p, i),
        message: `ISBN-10 ${isbn.digits} has no ISBN-13 (${wanted}) beside it.`,
        fix: safe(`Add 020 $a${wanted}`, {
          op: 'insert',
          at: p.at,
          field: { ...p.field, subfields: [{ code: 'a', value: wanted }] },
        }),
      });
    }
  },
};
