import { controlValue, type MarcRecord } from '../marc';

/** Encoding levels (MARC 21 Bibliographic, leader/17; those of single systems are left out but for the two that are met most). */
const LEVELS: Readonly<Record<string, string>> = {
  ' ': 'full level',
  '1': 'full level, material not examined',
  '2': 'less than full level, material not examined',
  '3': 'abbreviated level',
  '4': 'core level',
  '5': 'partial level',
  '7': 'minimal level',
  '8': 'prepublication level',
  I: 'full level',
  K: 'minimal level',
};

/** The encoding level of a leader in words; '' for one that is not known. */
export const encodingLevel = (leader: string): string => LEVELS[leader[17] ?? ' '] ?? '';

/** When a record was changed last (005), else entered (008/00-05), as an ISO date; '' for neither. */
export function recordDate(record: MarcRecord): string {
  const [, year, month, day] = /^(\d{4})(\d\d)(\d\d)/.exec(controlValue(record, '005') ?? '') ?? [];
  if (year && month && day) return `${year}-${month}-${day}`;
  const [, yy, mm, dd] = /^(\d\d)(\d\d)(\d\d)/.exec(controlValue(record, '008') ?? '') ?? [];
  // The first records in this format are of 1968.
  return yy && mm && dd ? `${Number(yy) >= 68 ? '19' : '20'}${yy}-${mm}-${dd}` : '';
}
