import { beyondIso2709, LONGEST_FIELD, LONGEST_RECORD, type MarcRecord, type Where } from '../../marc';
import type { Check } from '../finding';
import { RECORD } from '../view';

const whereOf = ({ fields }: MarcRecord, field: number): Where => {
  const tag = fields[field]?.tag ?? '';
  return { field, tag, occurrence: fields.slice(0, field).filter((f) => f.tag === tag).length };
};
const bytes = (n: number): string => `${n.toLocaleString('en-GB')} bytes`;

export const tooLong: Check = {
  rule: 'too-long',
  title: 'Too long for ISO 2709',
  group: 'Structure',
  source: 'ISO 2709:2008, record label and directory',
  run({ record }, tell) {
    const beyond = beyondIso2709(record);
    if (beyond.length !== null)
      tell({
        severity: 'warning',
        where: RECORD,
        message: `The record has ${bytes(beyond.length)}; ISO 2709 files hold at most ${bytes(LONGEST_RECORD)}. Export it as MARCXML.`,
      });
    for (const field of beyond.fields)
      tell({
        severity: 'warning',
        where: whereOf(record, field),
        message: `Field ${record.fields[field]?.tag} is longer than the ${bytes(LONGEST_FIELD)} that ISO 2709 files hold. Export the record as MARCXML, or split the field.`,
      });
  },
};
