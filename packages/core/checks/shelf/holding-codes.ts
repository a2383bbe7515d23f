import { nearest } from '../../text';
import { look, setText, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const holdingCodes: Check = {
  rule: 'holding-codes',
  title: 'Unknown branch or location',
  group: 'Classification and holdings',
  source: 'MARC 21 Format for Holdings Data, 852 $b and $c; the lists of this library',
  needs: ['852'],
  formats: ['bibliographic', 'holdings'],
  each: true,
  run(view, tell, house) {
    const lists = [
      { code: 'b', name: 'branch', list: house.codes?.branches ?? [] },
      { code: 'c', name: 'location', list: house.codes?.locations ?? [] },
    ];
    for (const p of view.tagged('852'))
      for (const { code, name, list } of lists) {
        if (list.length === 0) continue;
        for (const { value, i } of subfieldsOf(p, code)) {
          if (list.includes(value)) continue;
          const near = nearest(value, list, 1)[0];
          tell({
            severity: 'warning',
            where: inSubfield(p, i),
            message: `“${value}” is not a ${name} of this library${near ? `; the nearest is ${near}` : ''}.`,
            ...(near && { fix: look(`Write ${near}`, setText(p, i, near)) }),
          });
        }
      }
  },
};
