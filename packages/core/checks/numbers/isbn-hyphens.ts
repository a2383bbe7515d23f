import { safe, setText, type Check } from '../finding';
import { inSubfield } from '../view';

export const isbnPlain: Check = {
  rule: 'isbn-hyphens',
  title: 'ISBN with hyphens or a prefix',
  group: 'Numbers',
  source: 'MARC 21, 020 $a (the number without hyphens and without “ISBN”)',
  needs: ['020'],
  each: true,
  run({ isbns }, tell) {
    for (const { p, i, value, isbn } of isbns) {
      if (!isbn || isbn.problem || isbn.rest || value.trim() === isbn.digits) continue;
      tell({
        severity: 'advice',
        where: inSubfield(p, i),
        message: `020 $a has the digits only: ${isbn.digits}.`,
        fix: safe(`Write ${isbn.digits}`, setText(p, i, isbn.digits)),
      });
    }
  },
};
