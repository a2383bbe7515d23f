import { change, look, type Check } from '../finding';
import { wholeField } from '../view';

export const seriesTraced: Check = {
  rule: 'series-tracing',
  title: 'Series tracing: 490 and 8XX differ',
  group: 'Series',
  source: 'MARC 21, 490 first indicator and 8XX series added entries',
  needs: ['490'],
  run(view, tell) {
    if (view.tagged('490').length === 0) return;
    const entries = view.data.filter((p) => /^8(00|10|11|30)$/.test(p.field.tag));
    const traced = view.tagged('490').filter((p) => p.field.ind1 === '1');
    if (traced.length > 0 && entries.length === 0)
      tell({
        severity: 'warning',
        where: wholeField(traced[0]!),
        message: '490 first indicator is 1 (traced), but there is no 800–830.',
        fix: look('Set the first indicator to 0', change(traced[0]!, { ind1: '0' })),
      });
    const untraced = view.tagged('490').filter((p) => p.field.ind1 === '0');
    if (entries.length > 0 && untraced.length > 0 && traced.length === 0)
      tell({
        severity: 'advice',
        where: wholeField(untraced[0]!),
        message: `490 first indicator is 0 (not traced), but there is a field ${entries[0]!.field.tag}.`,
        fix: look('Set the first indicator to 1', change(untraced[0]!, { ind1: '1' })),
      });
  },
};
