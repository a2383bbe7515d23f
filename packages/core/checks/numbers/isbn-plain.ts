import { safe, setText, type Check } from '../finding';
import { inSubfield } from '../view';

export const isbnPlain: Check = {
  rule: 'isbn-plain',
  title: 'ISBN with hyphens or words before it',
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
        message: `In 020 $a the number stands alone: ${isbn.digits}.`,
        fix: safe(`Write ${isbn.digits}`, setText(p, i, isbn.digits)),
      });
    }
  },
};
