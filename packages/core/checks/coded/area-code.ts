import { type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';
import { listedCode } from './listed-code';

export const areaCode: Check = {
  rule: 'area-code',
  title: 'Unknown geographic area code',
  group: 'Coded fields',
  source: 'MARC Code List for Geographic Areas; MARC 21, 043 $a',
  needs: ['043'],
  formats: ['bibliographic', 'authority'],
  each: true,
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
        else {
          const told = listedCode('areas', 'area code', value.replace(/-+$/, ''));
          if (told) tell({ ...told, where });
        }
      }
  },
};
