import { checkRecord, fixAll, type Finding } from '@osier/core/checks';
import type { HouseRules } from '@osier/core/house';
import { controlValue, writeIso2709, type MarcRecord } from '@osier/core/marc';
import type { Building } from './building';

/** Writes a record's findings as lines, and, with `fix`, the record with every safe fix applied. */
export const checkLines =
  ({ as, house, fix }: { as: 'json' | 'text'; house: HouseRules; fix: boolean }) =>
  (record: MarcRecord, number: number, out: Building, fixed: Building): void => {
    const found = checkRecord(record, house);
    const control = controlValue(record, '001') ?? '';
    for (const f of found)
      out.put(as === 'json' ? jsonLine(f, number, control) : textLine(f, number, control));
    if (fix) fixed.put(writeIso2709(fixAll(record, house).record));
  };

/** Written by hand but for the texts: there are as many lines as findings. */
const jsonLine = ({ where, rule, severity, message, fix }: Finding, record: number, control: string) =>
  `{"record":${record},"control":${JSON.stringify(control)},"tag":${JSON.stringify(where.tag)},"occurrence":${
    where.occurrence
  },"subfield":${JSON.stringify(where.code ?? null)},"rule":"${rule}","severity":"${severity}","message":${JSON.stringify(
    message,
  )},"fix":${JSON.stringify(fix?.sentence ?? null)}}\n`;

const textLine = (f: Finding, record: number, control: string) =>
  `${record}${control && ` (${control.trim()})`} ${f.where.tag}${f.where.occurrence ? `[${f.where.occurrence + 1}]` : ''}${
    f.where.code ? ` $${f.where.code}` : ''
  }: ${f.severity}: ${f.message} [${f.rule}]${f.fix ? ` Fix: ${f.fix.sentence}${f.fix.safe ? '' : ' (look first)'}.` : ''}\n`;
