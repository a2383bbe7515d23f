import { look, setText, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

const NAMES = new Set(['100', '600', '700']);

export const initials: Check = {
  rule: 'initials',
  title: 'Initials of a heading without blanks',
  group: 'Names',
  source: 'RDA 8.5.6; form of the NACO authority file (a blank between initials in a heading)',
  formats: ['bibliographic', 'authority'],
  run({ data }, tell) {
    for (const p of data) {
      if (!NAMES.has(p.field.tag)) continue;
      for (const { value, i } of subfieldsOf(p, 'aq')) {
        const at = value.search(/(?<!\p{L})\p{Lu}\.\p{Lu}\./u);
        if (at < 0) continue;
        const mended = value.replace(/(?<!\p{L})(\p{Lu}\.)(?=\p{Lu}\.)/gu, '$1 ');
        tell({
          severity: 'advice',
          where: inSubfield(p, i, at, at + 4),
          message: `In a heading a blank stands between initials: ${mended.slice(at).replace(/[,\s]+$/, '')}.`,
          fix: look('Put blanks', setText(p, i, mended)),
        });
      }
    }
  },
};
