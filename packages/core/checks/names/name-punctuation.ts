import { followsIsbd } from '../isbd';
import { look, setText, type Check } from '../finding';
import { NAME_TAGS, inSubfield, lastTextOf } from '../view';

export const nameMarks: Check = {
  rule: 'name-punctuation',
  title: 'Punctuation of a name heading',
  group: 'Names',
  source: 'MARC 21, X00 (punctuation)',
  needs: NAME_TAGS,
  each: true,
  run(view, tell, house) {
    if (!followsIsbd(view, house)) return;
    for (const p of view.names) {
      if (p.field.tag[1] !== '0') continue;
      const { subfields } = p;
      for (const s of subfields) {
        const { i } = s;
        const before = subfields[i - 1];
        if (
          (s.code === 'd' || s.code === 'e') &&
          before &&
          'abcdqe'.includes(before.code) &&
          !/[,\-)?]$/.test(before.value.trimEnd())
        ) {
          if (s.code === 'e' && /\.$/.test(before.value) && !/\p{L}{2}\.$/u.test(before.value)) continue;
          tell({
            severity: 'advice',
            where: inSubfield(p, i - 1),
            message: `A comma precedes $${s.code} of a name; “${before.value.slice(-14)}” lacks it.`,
            fix: look('Put a comma', setText(p, i - 1, `${before.value.trimEnd().replace(/[.;:]$/, '')},`)),
          });
        }
      }
      const last = lastTextOf(p);
      const value = subfields[last]?.value.trimEnd();
      if (value !== undefined && /[,;:]$/.test(value))
        tell({
          severity: 'advice',
          where: inSubfield(p, last),
          message: `The name ends with “${value.slice(-1)}” instead of a full stop.`,
          fix: look('End it with a full stop', setText(p, last, `${value.slice(0, -1)}.`)),
        });
    }
  },
};
