import { change, look, type Check } from '../finding';
import { wholeField } from '../view';

export const mainEntry: Check = {
  rule: 'main-entry',
  title: 'First indicator of 245 and main entry differ',
  group: 'Coded fields',
  source: 'MARC 21, 245 first indicator (title added entry) and 1XX',
  run(view, tell) {
    const p = view.tagged('245')[0];
    if (!p) return;
    const has = ['100', '110', '111', '130'].find((t) => view.tagged(t).length > 0);
    const { ind1 } = p.field;
    if (has && has !== '130' && ind1 === '0')
      tell({
        severity: 'advice',
        where: wholeField(p),
        message: `The record has a main entry (${has}), so the first indicator of 245 is 1.`,
        fix: look('Set the first indicator to 1', change(p, { ind1: '1' })),
      });
    else if (!has && ind1 === '1')
      tell({
        severity: 'advice',
        where: wholeField(p),
        message: 'The record has no main entry (1XX), so the first indicator of 245 is 0.',
        fix: look('Set the first indicator to 0', change(p, { ind1: '0' })),
      });
  },
};
