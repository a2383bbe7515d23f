import { RECORD } from '../view';
import type { Check } from '../finding';

export const titleMissing: Check = {
  rule: 'title-missing',
  title: 'Missing title statement',
  group: 'Structure',
  source: 'MARC 21 Format for Bibliographic Data, 245 (required)',
  run(view, tell) {
    if (view.tagged('245').length === 0)
      tell({ severity: 'error', where: RECORD, message: 'The record has no title statement (245).' });
  },
};
