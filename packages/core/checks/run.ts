import type { HouseRules } from '../house';
import type { MarcRecord } from '../marc';
import { replacementCharacter, twiceEncoded } from './characters';
import { deweyForm } from './class-numbers';
import { dateAgainstText, fixedLength, linkForm } from './codes';
import type { Check, Finding, Severity } from './finding';
import { isbn13Missing, isbnForm } from './identifiers';
import { emptySubfield, notDefined, notRepeatable, severalMainEntries, titleMissing } from './structure';
import { droppedSubdivision, duplicateSubject } from './subjects';
import { capitalAfterArticle, nonfilingCount } from './title';

/** All checks, in the order in which findings are shown. */
export const CHECKS: readonly Check[] = [
  titleMissing,
  severalMainEntries,
  notRepeatable,
  notDefined,
  emptySubfield,
  twiceEncoded,
  replacementCharacter,
  isbnForm,
  isbn13Missing,
  dateAgainstText,
  fixedLength,
  nonfilingCount,
  capitalAfterArticle,
  duplicateSubject,
  droppedSubdivision,
  deweyForm,
  linkForm,
];

const WEIGHT: Record<Severity, number> = { error: 0, warning: 1, advice: 2 };

/** What the checks that are on find in a record, worst first, then by place. */
export function checkRecord(record: MarcRecord, house: HouseRules): Finding[] {
  const found: Finding[] = [];
  for (const check of CHECKS) {
    if (house.checksOff.includes(check.rule)) continue;
    for (const finding of check.run(record, house)) found.push({ rule: check.rule, ...finding });
  }
  return found.sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity] || a.where.field - b.where.field);
}
