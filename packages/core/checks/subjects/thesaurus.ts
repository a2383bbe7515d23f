import { runningText } from '../../marc';
import { look, remove, type Check } from '../finding';
import { thesaurusOf } from '../subject-key';
import { wholeField } from '../view';

export const thesaurus: Check = {
  rule: 'thesaurus',
  title: 'Subject system that this library does not use',
  group: 'Subjects',
  source: 'house rules; MARC 21, 6XX second indicator and $2',
  *run({ data }, house) {
    if (house.thesauri.length === 0) return;
    for (const p of data) {
      if (!/^6(00|10|11|30|47|48|50|51|55)$/.test(p.field.tag)) continue;
      const system = thesaurusOf(p.field);
      if (system === '' || house.thesauri.includes(system)) continue;
      yield {
        severity: 'advice',
        where: wholeField(p),
        message: `“${runningText(p.field).replace(/\.$/, '')}” is from ${system}, which this library does not use.`,
        fix: look('Take it away', remove(p)),
      };
    }
  },
};
