import { subjectString } from '../../marc';
import { fold } from '../../text';
import { remove, safe, type Check } from '../finding';
import { subjectKey } from '../subject-key';
import { SUBJECT_TAGS, wholeField, type Placed } from '../view';

export const duplicateSubject: Check = {
  rule: 'duplicate-subject',
  title: 'Duplicate subject heading',
  group: 'Subjects',
  source: 'common practice, no source',
  needs: SUBJECT_TAGS,
  run({ subjects, memory }, tell) {
    if (subjects.length < 2) return;
    const starts = subjects.map(startOf);
    const suspect = (i: number) => starts.some((start, k) => k !== i && start === starts[i]);
    if (!starts.some((_, i) => suspect(i))) return;
    const folding = (text: string) => memory.of(fold, text);
    const seen = new Map<string, string>();
    for (const [i, p] of subjects.entries()) {
      if (!suspect(i)) continue;
      const key = subjectKey(p.field, folding);
      const before = seen.get(key);
      if (before !== undefined)
        tell({
          severity: 'warning',
          where: wholeField(p),
          message: `Duplicate of the subject heading “${before}”: “${subjectString(p.field)}”.`,
          fix: safe('Delete the duplicate', remove(p)),
        });
      else seen.set(key, subjectString(p.field));
    }
  },
};

/** What two like headings share at the least, as a number: tag, system, number of parts and first letter; cheaper than their keys. */
function startOf({ field }: Placed): number {
  let parts = 0;
  let first = '';
  for (const { code, value } of field.subfields) {
    if (code >= 'a') parts++;
    if (code === 'a' && first === '') first = value;
  }
  const kind = (field.tag.charCodeAt(1) << 8) ^ (field.tag.charCodeAt(2) << 4) ^ field.ind2.charCodeAt(0);
  return (kind << 16) ^ (parts << 24) ^ firstLetter(first);
}

function firstLetter(text: string): number {
  const small = text.charCodeAt(0) | 0x20;
  if (small >= 0x61 && small <= 0x7a) return small;
  return /[\p{L}\p{N}]/u.exec(text)?.[0].toLowerCase().charCodeAt(0) ?? 0;
}
