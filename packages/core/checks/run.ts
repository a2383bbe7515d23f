import type { Format } from '../format';
import type { HouseRules } from '../house';
import type { MarcRecord } from '../marc';
import { CHECKS } from './all';
import type { Check, Finding, Severity, Tell } from './finding';
import { viewOf, type RecordView } from './view';

const WEIGHT: Record<Severity, number> = { error: 0, warning: 1, advice: 2 };

/** What the checks that are on find in a record, worst first, then by place. */
export function checkRecord(record: MarcRecord, house: HouseRules): Finding[] {
  const found: Finding[] = [];
  const view = viewOf(record);
  let rule = '';
  const tell: Tell = ({ severity, where, message, fix }) =>
    found.push(fix ? { rule, severity, where, message, fix } : { rule, severity, where, message });
  for (const check of checksFor(view, house)) {
    rule = check.rule;
    check.run(view, tell, house);
  }
  if (found.length < 2) return found;
  return found.sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity] || a.where.field - b.where.field);
}

const MOST = 5_000;
let chosen: { house: HouseRules; lists: Map<string, readonly Check[]> } | undefined;
/**
 * The checks that are on and can find something in a record of this format with these tags. House rules are the same
 * value from record to record, and the same sets of tags come again and again.
 */
function checksFor({ format, tags }: RecordView, house: HouseRules): readonly Check[] {
  if (chosen?.house !== house) chosen = { house, lists: new Map() };
  const key = format + tags;
  let list = chosen.lists.get(key);
  if (!list) {
    list = CHECKS.filter(
      (c) =>
        !house.checksOff.includes(c.rule) &&
        (c.formats ?? BIBLIOGRAPHIC).includes(format) &&
        (!c.needs || c.needs.some((tag) => tags.includes(`${tag} `))),
    );
    if (chosen.lists.size < MOST) chosen.lists.set(key, list);
  }
  return list;
}

const BIBLIOGRAPHIC: readonly Format[] = ['bibliographic'];
