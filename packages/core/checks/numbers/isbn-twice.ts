import { readIsbn } from '../../access';
import { remove, safe, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const isbnTwice: Check = {
  rule: 'isbn-twice',
  title: 'The same ISBN given twice',
  group: 'Numbers',
  source: 'common practice, no source',
  *run(view) {
    const seen = new Set<string>();
    for (const p of view.tagged('020'))
      for (const { value, i } of subfieldsOf(p, 'a')) {
        const digits = readIsbn(value)?.digits;
        if (digits === undefined) continue;
        const alone = p.field.subfields.length === 1;
        if (seen.has(digits))
          yield {
            severity: 'advice',
            where: inSubfield(p, i),
            message: `ISBN ${digits} is there already.`,
            ...(alone && { fix: safe('Take this one away', remove(p)) }),
          };
        seen.add(digits);
      }
  },
};
