import { addressOf } from '@osier/core/address';
import { checkerFor, fixAll, TOGETHER, type Finding } from '@osier/core/checks';
import type { HouseRules } from '@osier/core/house';
import { controlValue, jsonText, writeIso2709, type MarcRecord } from '@osier/core/marc';
import type { Building } from './building';
import type { Putter } from './putter';

/** Writes records' findings as lines, and, with `fix`, the records with every safe fix applied. */
export function checkLines({
  as,
  house,
  fix,
}: {
  as: 'json' | 'text';
  house: HouseRules;
  fix: boolean;
}): Putter {
  const checker = checkerFor(house);
  const line = as === 'json' ? jsonLine : textLine;
  let records: MarcRecord[] = [];
  let numbers: number[] = [];
  const rest = (out: Building, fixed: Building) => {
    if (records.length === 0) return;
    let text = '';
    for (const [i, found] of checker.checkAll(records).entries()) {
      if (found.length === 0) continue;
      const control = controlValue(records[i]!, '001') ?? '';
      for (const f of found) text += line(f, numbers[i]!, control, records[i]!);
    }
    out.put(text);
    if (fix) for (const record of records) fixed.put(writeIso2709(fixAll(record, checker).record));
    records = [];
    numbers = [];
  };
  return {
    put(record, number, out, fixed) {
      records.push(record);
      numbers.push(number);
      if (records.length === TOGETHER) rest(out, fixed);
    },
    rest,
  };
}

/** Written by hand: there are as many lines as findings. */
const jsonLine = ({ where, rule, severity, message, fix }: Finding, record: number, control: string) =>
  `{"record":${record},"control":${jsonText(control)},"tag":${jsonText(where.tag)},"occurrence":${
    where.occurrence
  },"subfield":${where.code === undefined ? 'null' : jsonText(where.code)},"rule":"${rule}","severity":"${severity}","message":${jsonText(
    message,
  )},"fix":${fix ? jsonText(fix.sentence) : 'null'}}\n`;

/** The place stands there as a field address. */
const textLine = (f: Finding, number: number, control: string, record: MarcRecord) =>
  `${number}${control && ` (${control.trim()})`} ${addressOf(record, f.where)}: ${f.severity}: ${f.message} [${f.rule}]${
    f.fix ? ` Fix: ${f.fix.sentence}${f.fix.safe ? '' : ' (look first)'}.` : ''
  }\n`;
