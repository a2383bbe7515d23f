import { subjectString } from '../../marc';
import { look, remove, type Check } from '../finding';
import { thesaurusOf } from '../subject-key';
import { SUBJECT_TAGS, wholeField } from '../view';

export const thesaurus: Check = {
  rule: 'thesaurus',
  title: 'Subject vocabulary not used in this library',
  group: 'Subjects',
  source: 'house rules; MARC 21, 6XX second indicator and $2',
  needs: SUBJECT_TAGS,
  each: true,
  run({ subjects }, tell, house) {
    if (house.thesauri.length === 0) return;
    for (const p of subjects) {
      const system = thesaurusOf(p.field);
      if (system === '' || house.thesauri.includes(system)) continue;
      tell({
        severity: 'advice',
        where: wholeField(p),
        message: `“${subjectString(p.field).replace(/\.$/, '')}” is from ${system}, which this library does not use.`,
        fix: look('Take it away', remove(p)),
      });
    }
  },
};
