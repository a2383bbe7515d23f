import { codeName, codeStanding } from '../../format';
import { type Check } from '../finding';
import { inControl, inSubfield, subfieldsOf } from '../view';

export const countryCode: Check = {
  rule: 'country-code',
  title: 'Country code that is not on the list',
  group: 'Codes against text',
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
  if (code === '' || /^\|+$/.test(code)) return null;
  const standing = codeStanding('countries', code);
  if (standing === 'current') return null;
  if (standing === 'obsolete')
    return {
      severity: 'advice' as const,
      message: `The country code ${code} (${codeName('countries', code)}) is obsolete.`,
    };
  return { severity: 'warning' as const, message: `“${code}” is no country code of the MARC list.` };
}
