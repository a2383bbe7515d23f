import { runningText, subjectString } from '../../marc';
import { fold } from '../../text';
import { look, remove, type Check } from '../finding';
import { wholeField, type Placed } from '../view';

export const codedAndFree: Check = {
  rule: 'uncontrolled-duplicate',
  title: 'Uncontrolled term that duplicates a heading',
  group: 'Subjects',
  source: 'MARC 21, 653 and 6XX second indicator 4; common practice',
  run({ data }, tell) {
    if (!data.some(isFree)) return;
    const free = data.filter(isFree);
    const controlled = new Set(
      data
        .filter((p) => /^6(00|10|11|30|50|51|55)$/.test(p.field.tag) && p.field.ind2 !== '4')
        .map((p) => fold(runningText(p.field, PARTS))),
    );
    for (const p of free)
      if (controlled.has(fold(runningText(p.field, PARTS))))
        tell({
          severity: 'advice',
          where: wholeField(p),
          message: `“${subjectString(p.field)}” is also in the record as a controlled heading.`,
          fix: look('Delete the uncontrolled term', remove(p)),
        });
  },
};

const PARTS = 'abcdfgtvxyz';
const isFree = ({ field }: Placed) =>
  field.tag[0] === '6' &&
  (field.tag === '653' || (field.ind2 === '4' && (field.tag[1] === '0' || field.tag[1] === '5')));
