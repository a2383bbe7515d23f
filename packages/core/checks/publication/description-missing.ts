import { type Check } from '../finding';
import { RECORD } from '../view';

export const descriptionMissing: Check = {
  rule: 'description-missing',
  title: 'Missing physical description',
  group: 'Publication and description',
  source: 'MARC 21, 300; ISBD, area 5',
  run(view, tell) {
    if (view.tagged('300').length === 0 && !'aci'.includes(view.record.leader[7]!))
      tell({ severity: 'advice', where: RECORD, message: 'The record has no physical description (300).' });
  },
};
