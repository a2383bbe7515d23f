import { cutDewey, readDewey } from '../../callnumbers';
import { safe, setText, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const deweyForm: Check = {
  rule: 'dewey-form',
  title: 'Form of the Dewey class number',
  group: 'Classification and holdings',
  source: 'MARC 21, 082 $a; house rules for the decimals',
  needs: ['082'],
  each: true,
  run(view, tell, house) {
    for (const p of view.tagged('082'))
      for (const { value, i } of subfieldsOf(p, 'a')) {
        if (/^(?:\[?(fic|e|b|j)\]?|\[.*\])$/i.test(value.trim())) continue;
        if (!readDewey(value)) {
          tell({
            severity: 'warning',
            where: inSubfield(p, i),
            message: `“${value}” is not a Dewey class number.`,
          });
          continue;
        }
        const cut = cutDewey(value, house.classDecimals)!;
        if (cut === value) continue;
        tell({
          severity: 'advice',
          where: inSubfield(p, i),
          message:
            value.replace(/[/′']/g, '') === cut
              ? `Class number ${value} has segmentation marks; without them: ${cut}.`
              : `Class number ${value} has more decimals than the house rules keep; shortened: ${cut}.`,
          fix: safe(`Cut it to ${cut}`, setText(p, i, cut)),
        });
      }
  },
};
