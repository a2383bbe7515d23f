import { type Check } from '../finding';
import { wholeField } from '../view';

export const barcodeMissing: Check = {
  rule: 'barcode-missing',
  title: 'Missing barcode',
  group: 'Classification and holdings',
  source: 'MARC 21 Format for Holdings Data, 852 $p and 876 $p; house practice',
  needs: ['852', '876'],
  formats: ['bibliographic', 'holdings'],
  run(view, tell) {
    const items = view.tagged('876').filter((p) => !p.field.subfields.some((s) => s.code === 'p'));
    for (const p of items)
      tell({ severity: 'advice', where: wholeField(p), message: 'This copy (876) has no barcode ($p).' });
    if (view.tagged('876').length > 0) return;
    for (const p of view.tagged('852'))
      if (p.field.subfields.some((s) => s.code === 't') && !p.field.subfields.some((s) => s.code === 'p'))
        tell({ severity: 'advice', where: wholeField(p), message: 'This copy (852) has no barcode ($p).' });
  },
};
