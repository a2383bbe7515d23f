import { change, look, type Check } from '../finding';
import { SUBJECT_TAGS, inSubfield, subfieldsOf } from '../view';

export const subdivisionInText: Check = {
  rule: 'uncoded-subdivision',
  title: 'Subdivisions not in subfields',
  group: 'Subjects',
  source: 'MARC 21, 6XX $v $x $y $z',
  needs: SUBJECT_TAGS,
  each: true,
  run({ subjects, text }, tell) {
    if (!/--|[–—]/.test(text)) return;
    for (const p of subjects) {
      for (const { code, value, i } of subfieldsOf(p, 'axvyz')) {
        const parts = value.split(/\s*--\s*|\s+[–—]\s+/).filter((x) => x.trim() !== '');
        if (parts.length < 2) continue;
        const split = parts.map((part, n) => ({ code: n === 0 ? code : codeFor(part), value: part }));
        const subfields = p.field.subfields.flatMap((s, k) => (k === i ? split : [s]));
        tell({
          severity: 'warning',
          where: inSubfield(p, i),
          message: `“${value}” has subdivisions in its text; each needs its own subfield.`,
          fix: look(
            `Split it: ${split.map((s) => `$${s.code}${s.value}`).join(' ')}`,
            change(p, { subfields }),
          ),
        });
      }
    }
  },
};

/** Years are chronological; the rest a person decides, general to begin with. */
const codeFor = (text: string) => (/\d{3,4}|century/i.test(text) ? 'y' : 'x');
