import { runningText } from '../../marc';
import { fold } from '../../text';
import { look, remove, type Check } from '../finding';
import { wholeField } from '../view';

export const codedAndFree: Check = {
  rule: 'coded-and-free',
  title: 'Uncontrolled term that repeats a heading',
  group: 'Subjects',
  source: 'MARC 21, 653 and 6XX second indicator 4; common practice',
  *run({ data }) {
    const controlled = new Set<string>();
    for (const p of data)
      if (/^6(00|10|11|30|50|51|55)$/.test(p.field.tag) && p.field.ind2 !== '4')
        controlled.add(fold(runningText(p.field, 'abcdfgtvxyz')));
    if (controlled.size === 0) return;
    for (const p of data) {
      const free = p.field.tag === '653' || (/^6[05]\d$/.test(p.field.tag) && p.field.ind2 === '4');
      if (!free || !controlled.has(fold(runningText(p.field, 'abcdfgtvxyz')))) continue;
      yield {
        severity: 'advice',
        where: wholeField(p),
        message: `“${runningText(p.field)}” is also there as a controlled heading.`,
        fix: look('Take this one away', remove(p)),
      };
    }
  },
};
