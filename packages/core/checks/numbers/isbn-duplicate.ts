import { remove, safe, type Check } from '../finding';
import { inSubfield } from '../view';

export const isbnTwice: Check = {
  rule: 'isbn-duplicate',
  title: 'Duplicate ISBN',
  group: 'Numbers',
  source: 'common practice, no source',
  needs: ['020'],
  run({ isbns }, tell) {
    if (isbns.length < 2) return;
    const seen = new Set<string>();
    for (const { p, i, isbn } of isbns) {
      const digits = isbn?.digits;
      if (digits === undefined) continue;
      const alone = p.field.subfields.length === 1;
      if (seen.has(digits))
        tell({
          severity: 'advice',
          where: inSubfield(p, i),
          message: `Duplicate ISBN: ${digits}.`,
          ...(alone && { fix: safe('Delete the duplicate', remove(p)) }),
        });
      seen.add(digits);
    }
  },
};
