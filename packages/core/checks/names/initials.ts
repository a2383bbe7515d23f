import { look, setText, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

const NAMES = ['100', '600', '700'];

export const initials: Check = {
  rule: 'initials',
  title: 'Initials in a heading without spaces',
  group: 'Names',
  source: 'RDA 8.5.6; form of the NACO authority file (a blank between initials in a heading)',
  needs: NAMES,
  formats: ['bibliographic', 'authority'],
  each: true,
  run(view, tell) {
    for (const tag of NAMES)
      for (const p of view.tagged(tag))
        for (const { value, i } of subfieldsOf(p, 'aq')) {
          if (!hasClosePoints(value)) continue;
          const at = value.search(/(?<!\p{L})\p{Lu}\.\p{Lu}\./u);
          if (at < 0) continue;
          const corrected = value.replace(/(?<!\p{L})(\p{Lu}\.)(?=\p{Lu}\.)/gu, '$1 ');
          tell({
            severity: 'advice',
            where: inSubfield(p, i, at, at + 4),
            message: `Initials in a heading are spaced: ${corrected.slice(at).replace(/[,\s]+$/, '')}.`,
            fix: look('Insert spaces', setText(p, i, corrected)),
          });
        }
  },
};

/** Two full stops with one or two units of UTF-16 between them, the first of them no blank. */
function hasClosePoints(text: string): boolean {
  for (let at = text.indexOf('.'); at >= 0; at = text.indexOf('.', at + 1))
    if (text[at + 1] !== ' ' && (text[at + 2] === '.' || text[at + 3] === '.')) return true;
  return false;
}
