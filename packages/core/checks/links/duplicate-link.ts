import { dropSubfield, remove, safe, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const linkTwice: Check = {
  rule: 'duplicate-link',
  title: 'Duplicate link',
  group: 'Links',
  source: 'common practice, no source',
  needs: ['856'],
  run(view, tell) {
    const seen = new Set<string>();
    for (const p of view.tagged('856'))
      for (const { value, i } of subfieldsOf(p, 'u')) {
        const key = value.trim().replace(/\/$/, '');
        const alone = p.field.subfields.filter((s) => s.code === 'u').length === 1;
        if (seen.has(key))
          tell({
            severity: 'advice',
            where: inSubfield(p, i),
            message: `Duplicate link: ${value}.`,
            fix: safe('Delete the duplicate', alone ? remove(p) : dropSubfield(p, i)),
          });
        seen.add(key);
      }
  },
};
