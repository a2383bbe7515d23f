import type { HouseRules } from '../house';
import type { MarcRecord } from '../marc';
import { CHECKS } from './all';
import type { Finding, Severity } from './finding';
import { viewOf } from './view';

const WEIGHT: Record<Severity, number> = { error: 0, warning: 1, advice: 2 };

/** What the checks that are on find in a record, worst first, then by place. */
export function checkRecord(record: MarcRecord, house: HouseRules): Finding[] {
  const found: Finding[] = [];
  const view = viewOf(record);
  for (const check of CHECKS) {
    if (house.checksOff.includes(check.rule)) continue;
    if (!(check.formats ?? BIBLIOGRAPHIC).includes(view.format)) continue;
    for (const finding of check.run(view, house)) found.push({ rule: check.rule, ...finding });
  }
  return found.sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity] || a.where.field - b.where.field);
}

const BIBLIOGRAPHIC: readonly string[] = ['bibliographic'];
