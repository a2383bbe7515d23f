import { followsIsbd, withMark } from '../isbd';
import { look, setText, type Check } from '../finding';
import { inSubfield } from '../view';

/** Marks that stand before a subfield of 245, at the end of the one before it (ISBD, title area). */
const BEFORE: Record<string, { ends: RegExp; mark: string; said: string }> = {
  b: { ends: / [:;=]$/, mark: ' :', said: 'a space and : ; or =' },
  c: { ends: / \/$/, mark: ' /', said: 'a blank and /' },
  n: { ends: /\.$/, mark: '.', said: 'a full stop' },
  p: { ends: /[.,]$/, mark: '.', said: 'a full stop, or a comma after $n' },
};

export const titleMarks: Check = {
  rule: 'title-punctuation',
  title: 'Punctuation of the title statement',
  group: 'Title',
  source: 'ISBD, area 1; MARC 21, 245 (punctuation)',
  needs: ['245'],
  each: true,
  run(view, tell, house) {
    if (!followsIsbd(view, house)) return;
    for (const p of view.tagged('245'))
      for (const s of p.subfields) {
        const { i } = s;
        const rule = BEFORE[s.code];
        const before = p.field.subfields[i - 1];
        if (!rule || !before || before.code < 'a') continue;
        const ends = s.code === 'p' && before.code === 'n' ? /,$/ : s.code === 'p' ? /[.]$/ : rule.ends;
        if (
          ends.test(before.value) ||
          (s.code === 'b' && before.code === 'h' && / ?[:;=]$/.test(before.value))
        )
          continue;
        if (s.code === 'n' && before.code === 'n' && /,$/.test(before.value)) continue;
        const mark = s.code === 'p' && before.code === 'n' ? ',' : rule.mark;
        tell({
          severity: 'advice',
          where: inSubfield(p, i - 1),
          message: `$${s.code} of 245 is preceded by ${rule.said}; “${before.value.slice(-12)}” lacks it.`,
          fix: look(`Put “${mark.trim()}” there`, setText(p, i - 1, withMark(before.value, mark))),
        });
      }
  },
};
