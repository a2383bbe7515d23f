import { codeName, codeStanding } from '../../format';
import { type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const areaCode: Check = {
  rule: 'area-code',
  title: 'Geographic area code that is not on the list',
  group: 'Codes against text',
  source: 'MARC Code List for Geographic Areas; MARC 21, 043 $a',
  formats: ['bibliographic', 'authority'],
  run(view, tell) {
    for (const p of view.tagged('043'))
      for (const { value, i } of subfieldsOf(p, 'a')) {
        const where = inSubfield(p, i);
        if (value.length !== 7)
          tell({
            severity: 'warning',
            where,
            message: `An area code has seven characters; “${value}” has ${value.length}.`,
          });
        else if (
          codeStanding('areas', value.replace(/-+$/, '')) === 'current' ||
          codeStanding('areas', value) === 'current'
        )
          continue;
        else if (
          codeStanding('areas', value.replace(/-+$/, '')) === 'obsolete' ||
          codeStanding('areas', value) === 'obsolete'
        )
          tell({
            severity: 'advice',
            where,
            message: `The area code ${value} (${codeName('areas', value) ?? codeName('areas', value.replace(/-+$/, ''))}) is obsolete.`,
          });
        else tell({ severity: 'warning', where, message: `“${value}” is no area code of the MARC list.` });
      }
  },
};
