import type { Format } from '../format';
import type { HouseRules } from '../house';
import type { MarcRecord } from '../marc';
import { CHECKS } from './all';
import type { Check, Finding, Severity, Tell } from './finding';
import { viewOf } from './view';

const WEIGHT: Record<Severity, number> = { error: 0, warning: 1, advice: 2 };

/** What the checks that are on find in a record, worst first, then by place. */
export function checkRecord(record: MarcRecord, house: HouseRules): Finding[] {
  const found: Finding[] = [];
  const view = viewOf(record);
  let rule = '';
  const tell: Tell = ({ severity, where, message, fix }) =>
    found.push(fix ? { rule, severity, where, message, fix } : { rule, severity, where, message });
  for (const check of checksFor(view.format, house)) {
    rule = check.rule;
    check.run(view, tell, house);
  }
  if (found.length < 2) return found;
  return found.sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity] || a.where.field - b.where.field);
}

let chosen: { house: HouseRules; lists: Partial<Record<Format, readonly Check[]>> } | undefined;
/** The checks of a format that are on; house rules are the same value from record to record. */
function checksFor(format: Format, house: HouseRules): readonly Check[] {
  if (chosen?.house !== house) chosen = { house, lists: {} };
  return (chosen.lists[format] ??= CHECKS.filter(
    (c) => !house.checksOff.includes(c.rule) && (c.formats ?? BIBLIOGRAPHIC).includes(format),
  ));
}

const BIBLIOGRAPHIC: readonly Format[] = ['bibliographic'];
