import { codeName, codeStanding, type CodeList } from '../../format';
import type { Severity } from '../finding';

/** What is wrong with a code of a MARC list, `what` being its name; null when the list has it now. */
export function listedCode(
  list: CodeList,
  what: string,
  code: string,
): { severity: Severity; message: string } | null {
  const standing = codeStanding(list, code);
  if (standing === 'current') return null;
  if (standing === 'obsolete')
    return { severity: 'advice', message: `The ${what} ${code} (${codeName(list, code)}) is obsolete.` };
  return { severity: 'warning', message: `“${code}” is no ${what} of the MARC list.` };
}
