import type { Check } from '../finding';
import { wholeField } from '../view';

export const severalMainEntries: Check = {
  rule: 'multiple-main-entries',
  title: 'More than one main entry',
  group: 'Structure',
  source: 'MARC 21 Format for Bibliographic Data, 1XX Main entries; Format for Authority Data, 1XX Headings',
  formats: ['bibliographic', 'authority'],
  run(view, tell) {
    const entries = view.data.filter(({ field: { tag } }) => tag.charCodeAt(0) === 0x31 && tag[1] !== '9');
    if (entries.length < 2) return;
    for (const p of entries.slice(1))
      tell({
        severity: 'error',
        where: wholeField(p),
        message: `A record has one main entry (1XX); ${p.field.tag} is a second one.`,
      });
  },
};
