import { type Check } from '../finding';
import { inControl, inSubfield, subfieldsOf } from '../view';
import { listedCode } from './listed-code';

const SOUND = ['   ', '|||', 'zxx', 'mul', 'und', 'sgn'];

export const languageCode: Check = {
  rule: 'language-code',
  title: 'Unknown language code',
  group: 'Coded fields',
  source: 'MARC Code List for Languages; MARC 21, 008/35-37 and 041',
  run(view, tell) {
    const fixed = view.control('008');
    if (fixed && fixed.value.length >= 38) {
      const told = problemOf(fixed.value.slice(35, 38));
      if (told) tell({ ...told, where: inControl('008', fixed.at, 35, 38) });
    }
    for (const p of view.tagged('041')) {
      if (p.field.ind2 === '7') continue;
      for (const { code, value, i } of subfieldsOf(p)) {
        if (!/[a-t]/.test(code)) continue;
        const parts = value.match(/.{1,3}/gsu) ?? [];
        if (value.length % 3 !== 0)
          tell({
            severity: 'warning',
            where: inSubfield(p, i),
            message: `Language codes have three letters; “${value}” has ${value.length}.`,
          });
        else
          for (const [n, part] of parts.entries()) {
            const told = problemOf(part);
            if (told) tell({ ...told, where: inSubfield(p, i, 3 * n, 3 * n + 3) });
          }
      }
    }
  },
};

const problemOf = (code: string) =>
  SOUND.includes(code) ? null : listedCode('languages', 'language code', code);
