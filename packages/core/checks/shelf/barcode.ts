import { barcodeProblem, scannedBarcode } from '../../barcodes';
import { type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const barcode: Check = {
  rule: 'barcode',
  title: 'Invalid or duplicate barcode',
  group: 'Classification and holdings',
  source: 'MARC 21 Format for Holdings Data, 852 $p and 876 $p; the library’s rules for barcodes',
  needs: ['852', '876'],
  formats: ['bibliographic', 'holdings'],
  run(view, tell, house) {
    const seen = new Set<string>();
    for (const p of [...view.tagged('852'), ...view.tagged('876')]) {
      for (const { value, i } of subfieldsOf(p, 'p')) {
        const where = inSubfield(p, i);
        const code = scannedBarcode(value, house.barcodes);
        const problem = barcodeProblem(code, house.barcodes);
        const key = `${p.field.tag} ${code}`;
        if (seen.has(key))
          tell({ severity: 'error', where, message: `Barcode ${code} is in this record twice.` });
        else if (problem) tell({ severity: 'warning', where, message: problem });
        seen.add(key);
      }
    }
  },
};
