import { runningText } from '../../marc';
import { remove, safe, type Check } from '../finding';
import { subjectKey } from '../subject-key';
import { SUBJECT_TAGS, wholeField, type Placed } from '../view';

export const duplicateSubject: Check = {
  rule: 'duplicate-subject',
  title: 'Subject heading given twice',
  group: 'Subjects',
  source: 'common practice, no source',
  needs: SUBJECT_TAGS,
  run({ subjects }, tell) {
    if (subjects.length < 2) return;
    const alike = new Set<string>();
    const suspects = new Set<string>();
    for (const p of subjects) {
      const start = startOf(p);
      if (alike.has(start)) suspects.add(start);
      alike.add(start);
    }
    if (suspects.size === 0) return;
    const seen = new Map<string, string>();
    for (const p of subjects) {
      if (!suspects.has(startOf(p))) continue;
      const key = subjectKey(p.field);
      const before = seen.get(key);
      if (before !== undefined)
        tell({
          severity: 'warning',
          where: wholeField(p),
          message: `“${runningText(p.field)}” is there already, as “${before}”.`,
          fix: safe('Take this one away', remove(p)),
        });
      else seen.set(key, runningText(p.field));
    }
  },
};

/** What two like headings share at the least: tag, system, number of parts and first letter; cheaper than their keys. */
const startOf = ({ field, subfields }: Placed): string => {
  let parts = 0;
  for (const { code } of subfields) if (code >= 'a') parts++;
  const first = subfields.find((s) => s.code === 'a')?.value ?? '';
  return `${field.tag}${field.ind2}${parts}${firstLetter(first)}`;
};

function firstLetter(text: string): string {
  const small = text.charCodeAt(0) | 0x20;
  if (small >= 0x61 && small <= 0x7a) return String.fromCharCode(small);
  return /[\p{L}\p{N}]/u.exec(text)?.[0].toLowerCase() ?? '';
}
