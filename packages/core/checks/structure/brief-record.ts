import type { Check } from '../finding';
import { RECORD } from '../view';

export const waitsForFullRecord: Check = {
  rule: 'brief-record',
  title: 'Brief record waiting for a full one',
  group: 'Structure',
  source: 'MARC 21 Format for Bibliographic Data, leader/17 (3: abbreviated level)',
  run({ record }, tell) {
    if (record.leader[17] === '3')
      tell({
        severity: 'advice',
        where: RECORD,
        message: 'Brief record: complete it, or replace it when its full record arrives.',
      });
  },
};
