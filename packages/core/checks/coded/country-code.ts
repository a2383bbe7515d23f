import { type Check } from '../finding';
import { inControl, inSubfield, subfieldsOf } from '../view';
import { listedCode } from './listed-code';

export const countryCode: Check = {
  rule: 'country-code',
  title: 'Unknown country code',
  group: 'Coded fields',
  source: 'MARC Code List for Countries; MARC 21, 008/15-17 and 044',
  run(view, tell) {
    const fixed = view.control('008');
    if (fixed && fixed.value.length >= 18) {
      const told = problemOf(fixed.value.slice(15, 18));
      if (told) tell({ ...told, where: inControl('008', fixed.at, 15, 18) });
    }
    for (const p of view.tagged('044'))
      for (const { value, i } of subfieldsOf(p, 'a')) {
        const told = problemOf(value);
        if (told) tell({ ...told, where: inSubfield(p, i) });
      }
  },
};

function problemOf(text: string) {
  const code = text.trim();
  return code === '' || /^\|+$/.test(code) ? null : listedCode('countries', 'country code', code);
}
