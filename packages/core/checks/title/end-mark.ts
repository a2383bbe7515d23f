import { followsIsbd } from '../isbd';
import { safe, setText, type Check } from '../finding';
import { inSubfield, lastTextOf } from '../view';

/** Fields that end with a full stop where punctuation is kept. */
const ENDING = new Set(['245', '250', '260', '264', '500', '504', '505', '520']);

export const endMark: Check = {
  rule: 'end-mark',
  title: 'Missing final full stop',
  group: 'Title',
  source: 'ISBD, general punctuation; MARC 21, 245, 250, 26X, 5XX (punctuation)',
  needs: [...ENDING],
  each: true,
  run(view, tell, house) {
    if (!followsIsbd(view, house)) return;
    for (const p of view.data) {
      if (!ENDING.has(p.field.tag)) continue;
      const i = lastTextOf(p);
      const whole = p.field.subfields[i]?.value;
      if (whole === undefined || whole.charCodeAt(whole.length - 1) === 0x2e) continue;
      const value = whole.trimEnd();
      if (
        /[.?!\])\-–…"”’>]$/u.test(value) ||
        (['264', '260'].includes(p.field.tag) && /[\]\d?-]$/.test(value))
      )
        continue;
      const title = p.field.tag === '245';
      const corrected = `${value.replace(/\s*[,;:/]$/, '')}.`;
      tell({
        severity: 'advice',
        where: inSubfield(p, i, Math.max(0, value.length - 1)),
        message: `${p.field.tag} ends with a full stop${title ? '' : ' or other closing mark'}; “${value.slice(-12)}” lacks it.`,
        fix: safe('Add a full stop', setText(p, i, corrected)),
      });
    }
  },
};
