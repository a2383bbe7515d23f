import { subjectString } from '../../marc';
import { startsWithLetter } from '../../text';
import { remove, safe, setText, type Check } from '../finding';
import { SUBJECT_TAGS, inSubfield, wholeField, type Placed } from '../view';

export const incompleteSubject: Check = {
  rule: 'incomplete-subject',
  title: 'Incomplete subject heading',
  group: 'Subjects',
  source: 'MARC 21, 6XX $a; common practice',
  needs: SUBJECT_TAGS,
  each: true,
  run({ subjects }, tell) {
    for (const p of subjects) {
      if (isWhole(p)) continue;
      const text = p.field.subfields.filter((s) => /[a-z]/.test(s.code) && s.value.trim() !== '');
      if (text.length === 0) continue;
      const last = p.field.subfields.lastIndexOf(text[text.length - 1]!);
      const dangling = /\s*(?:--|—|–)\s*$/.exec(text[text.length - 1]!.value);
      if (!text.some((s) => s.code === 'a' || (s.code === 't' && p.field.tag === '630')))
        tell({
          severity: 'warning',
          where: wholeField(p),
          message: `“${subjectString(p.field)}” has subdivisions but no $a.`,
        });
      else if (text.every((s) => !/[\p{L}\p{N}]/u.test(s.value)))
        tell({
          severity: 'warning',
          where: wholeField(p),
          message: `Field ${p.field.tag} has no text.`,
          fix: safe('Take it away', remove(p)),
        });
      else if (dangling)
        tell({
          severity: 'warning',
          where: inSubfield(p, last, dangling.index),
          message: `The heading ends with “${dangling[0].trim()}” and nothing after it.`,
          fix: safe('Cut it off', setText(p, last, text[text.length - 1]!.value.slice(0, dangling.index))),
        });
    }
  },
};

/** The usual heading, seen at a glance: it begins with $a in plain letters, and its last part ends with one or a mark. */
function isWhole({ subfields }: Placed): boolean {
  const [head] = subfields;
  const last = subfields[subfields.length - 1];
  return (
    head !== undefined &&
    head.code === 'a' &&
    startsWithLetter(head.value) &&
    /[a-zA-Z\d.)]$/.test(last!.value)
  );
}
