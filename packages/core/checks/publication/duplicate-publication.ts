import { type Check } from '../finding';
import { wholeField } from '../view';

export const publicationTwice: Check = {
  rule: 'duplicate-publication',
  title: 'Publication statement in both 260 and 264',
  group: 'Publication and description',
  source: 'MARC 21, 260 and 264',
  needs: ['260'],
  run(view, tell) {
    const old = view.tagged('260')[0];
    const now = view.tagged('264').find((p) => p.field.ind2 === '1');
    if (old && now)
      tell({
        severity: 'warning',
        where: wholeField(old),
        message: 'The publication statement is in 264 and in 260; keep one.',
      });
  },
};
