import { cutDewey, readDewey } from '../callnumbers';
import { inSubfield, placed, type Check } from './finding';

export const deweyForm: Check = {
  rule: 'dewey-form',
  title: 'Form of the Dewey number',
  source: 'MARC 21, 082 $a; house rules for the decimals',
  *run(record, house) {
    for (const p of placed(record, '082'))
      for (const [i, s] of p.field.subfields.entries()) {
        if (s.code !== 'a') continue;
        if (!readDewey(s.value)) {
          yield { severity: 'warning', where: inSubfield(p, i), message: `“${s.value}” is no Dewey number.` };
          continue;
        }
        const cut = cutDewey(s.value, house.classDecimals)!;
        if (cut === s.value) continue;
        yield {
          severity: 'advice',
          where: inSubfield(p, i),
          message: `The class ${s.value} is longer than the house keeps; cut it is ${cut}.`,
          fix: {
            sentence: `Cut it to ${cut}`,
            safe: true,
            edits: [{ op: 'text', at: p.at, subfield: i, value: cut }],
          },
        };
      }
  },
};
