import { runningText } from '../../marc';
import { remove, safe, type Check } from '../finding';
import { subjectKey } from '../subject-key';
import { wholeField } from '../view';

export const duplicateSubject: Check = {
  rule: 'duplicate-subject',
  title: 'Subject heading given twice',
  group: 'Subjects',
  source: 'common practice, no source',
  *run({ data }) {
    const seen = new Map<string, string>();
    for (const p of data) {
      if (!/^6[0-5]/.test(p.field.tag)) continue;
      const key = subjectKey(p.field);
      const before = seen.get(key);
      if (before !== undefined)
        yield {
          severity: 'warning',
          where: wholeField(p),
          message: `“${runningText(p.field)}” is there already, as “${before}”.`,
          fix: safe('Take this one away', remove(p)),
        };
      else seen.set(key, runningText(p.field));
    }
  },
};
