import { change, look, type Check } from '../finding';
import { wholeField } from '../view';

export const series440: Check = {
  rule: 'series-440',
  title: 'Series in obsolete field 440',
  group: 'Series',
  source: 'MARC 21, 440 (obsolete since 2008), 490 and 830',
  needs: ['440'],
  each: true,
  run(view, tell) {
    for (const p of view.tagged('440')) {
      const shown = p.field.subfields.filter((s) => 'avx638'.includes(s.code));
      tell({
        severity: 'advice',
        where: wholeField(p),
        message: 'Field 440 is obsolete: use 490 (as on the piece) and 830 (added entry).',
        fix: look(
          'Convert to 490 and 830',
          change(p, { tag: '490', ind1: '1', ind2: ' ', subfields: shown }),
          { op: 'insert', at: view.record.fields.length, field: { ...p.field, tag: '830', ind1: ' ' } },
        ),
      });
    }
  },
};
