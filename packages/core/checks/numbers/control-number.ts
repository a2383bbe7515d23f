import { controlValue } from '../../marc';
import { ALL_FORMATS, type Check } from '../finding';
import { RECORD } from '../view';

export const controlNumber: Check = {
  rule: 'control-number',
  title: 'Missing control number',
  group: 'Numbers',
  source: 'MARC 21 formats, 001 (mandatory)',
  formats: ALL_FORMATS,
  run({ record }, tell) {
    if (!controlValue(record, '001')?.trim())
      tell({ severity: 'advice', where: RECORD, message: 'The record has no control number (001).' });
  },
};
