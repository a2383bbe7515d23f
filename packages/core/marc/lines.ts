import { fieldText, type MarcRecord } from './record';

/** A record as lines for reading: the leader, then a line a field (`245 10 $aTitle /$cName.`), blank line after. */
export function lineForm(record: MarcRecord): string {
  return `LDR    ${record.leader}\n${record.fields.map(fieldText).join('\n')}\n\n`;
}
