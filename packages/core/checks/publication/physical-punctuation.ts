import { followsIsbd, withMark } from '../isbd';
import { look, safe, setText, type Check } from '../finding';
import { inSubfield } from '../view';

const BEFORE: Record<string, { ends: RegExp; mark: string }> = {
  b: { ends: /:$/, mark: ' :' },
  c: { ends: /;$/, mark: ' ;' },
  e: { ends: /\+$/, mark: ' +' },
};

export const physicalForm: Check = {
  rule: 'physical-punctuation',
  title: 'Punctuation of the physical description',
  group: 'Publication and description',
  source: 'ISBD, area 5; MARC 21, 300 (punctuation)',
  needs: ['300'],
  each: true,
  run(view, tell, house) {
    const isbd = followsIsbd(view, house);
    for (const p of view.tagged('300'))
      for (const s of p.subfields) {
        const { i } = s;
        const close = s.code === 'c' ? /(\d)(cm|mm)\b/.exec(s.value) : null;
        if (close)
          tell({
            severity: 'advice',
            where: inSubfield(p, i, close.index, close.index + close[0].length),
            message: `A space precedes the unit: “${close[1]} ${close[2]}”.`,
            fix: safe('Put a blank', setText(p, i, s.value.replace(/(\d)(cm|mm)\b/g, '$1 $2'))),
          });
        if (s.code === 'c' && /\d ?(cms|mms)\b/.test(s.value))
          tell({
            severity: 'advice',
            where: inSubfield(p, i),
            message: `The unit is cm, without a full stop; found “${s.value}”.`,
            fix: safe('Write cm', setText(p, i, s.value.replace(/(\d) ?([cm]m)s\b/g, '$1 $2'))),
          });
        const rule = BEFORE[s.code];
        const before = p.field.subfields[i - 1];
        if (!isbd || !rule || !before || before.code < 'a' || rule.ends.test(before.value.trimEnd()))
          continue;
        tell({
          severity: 'advice',
          where: inSubfield(p, i - 1),
          message: `“${rule.mark.trim()}” precedes $${s.code} of 300; “${before.value.slice(-12)}” lacks it.`,
          fix: look(`Put “${rule.mark.trim()}” there`, setText(p, i - 1, withMark(before.value, rule.mark))),
        });
      }
  },
};
