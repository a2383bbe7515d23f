import { type Check } from '../finding';
import { inSubfield, wholeField } from '../view';

export const partsOrder: Check = {
  rule: 'title-order',
  title: 'Title statement without $a first',
  group: 'Title',
  source: 'MARC 21, 245 $a',
  needs: ['245'],
  each: true,
  run(view, tell) {
    for (const p of view.tagged('245')) {
      const first = p.field.subfields.findIndex((s) => /[a-z]/.test(s.code));
      if (!p.field.subfields.some((s) => s.code === 'a'))
        tell({
          severity: 'warning',
          where: wholeField(p),
          message: 'The title statement (245) has no title ($a).',
        });
      else if (p.field.subfields[first]!.code !== 'a')
        tell({
          severity: 'warning',
          where: inSubfield(p, first),
          message: `The title statement begins with $${p.field.subfields[first]!.code}; $a (title) must be first.`,
        });
    }
  },
};
