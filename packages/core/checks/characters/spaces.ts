import { ALL_FORMATS, safe, setText, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

/** Coded subfields and control numbers whose blanks mean something. */
const EXACT = new Set(['010', '016', '035', '040', '041', '042', '043', '046', '066', '034', '074', '086']);

export const spaces: Check = {
  rule: 'spaces',
  title: 'Extra spaces',
  group: 'Characters',
  source: 'common practice, no source',
  formats: ALL_FORMATS,
  each: true,
  run({ data, text, ragged }, tell) {
    if (!ragged && !text.includes('  ')) return;
    for (const p of data) {
      if (EXACT.has(p.field.tag)) continue;
      for (const { code, value, i } of subfieldsOf(p)) {
        if (!hasSpare(value) || code === 'w' || value.trim() === '') continue;
        const corrected = value.trim().replace(/ {2,}/g, ' ');
        if (corrected === value) continue;
        tell({
          severity: 'advice',
          where: inSubfield(p, i),
          message: `Extra spaces in ${p.field.tag} $${code}.`,
          fix: safe('Delete the extra spaces', setText(p, i, corrected)),
        });
      }
    }
  },
};

const hasSpare = (text: string) =>
  text.includes('  ') || text.charCodeAt(0) === 0x20 || text.charCodeAt(text.length - 1) === 0x20;
