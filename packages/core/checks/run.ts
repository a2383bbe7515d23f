import type { HouseRules } from '../house';
import { isShared, type MarcRecord } from '../marc';
import { memory } from '../text';
import { CHECKS } from './all';
import type { Check, Finding, Severity, Tell } from './finding';
import { soundFields } from './sound-fields';
import { viewOf, type Known } from './take-apart';
import type { Placed, RecordView } from './view';
import { wantedBy } from './wanted';

const WEIGHT: Record<Severity, number> = { error: 0, warning: 1, advice: 2 };
const ORDER = new Map(CHECKS.map((c, i) => [c.rule, i]));

/** Checks records by the rules of a house; what it learns of fields, codes and terms that come again serves the next record. */
export interface Checker {
  readonly house: HouseRules;
  /** What the checks that are on find in a record, worst first, then by place. */
  check(record: MarcRecord): Finding[];
  /**
   * The same for each of many records. Each check looks at a few records before the next one does: seventy checks in turn
   * over one record make the processor fetch all of their code anew for every record.
   */
  checkAll(records: readonly MarcRecord[]): Finding[][];
}

/** Records that are looked at together. */
export const TOGETHER = 24;

/** Begins to check: to be kept as long as records of one house come. */
export function checkerFor(house: HouseRules): Checker {
  const on = CHECKS.filter((c) => !house.checksOff.includes(c.rule));
  const session: Session = {
    house,
    sounds: soundFields(),
    memory: memory(),
    ofFields: passOf(on.filter((c) => c.each)),
    ofRecord: passOf(on.filter((c) => !c.each)),
  };
  return {
    house,
    check: (record) => checkTogether([record], session)[0]!,
    checkAll(records) {
      if (records.length <= TOGETHER) return checkTogether(records, session);
      const all: Finding[][] = [];
      for (let at = 0; at < records.length; at += TOGETHER)
        all.push(...checkTogether(records.slice(at, at + TOGETHER), session));
      return all;
    },
  };
}

/** What the checks that are on find in one record; for many records, `checkerFor` is quicker. */
export const checkRecord = (record: MarcRecord, house: HouseRules): Finding[] =>
  checkerFor(house).check(record);

function checkTogether(records: readonly MarcRecord[], session: Session): Finding[][] {
  const { house, sounds, ofFields, ofRecord } = session;
  const views = records.map((record) => viewOf(record, session));
  const found = records.map((): Finding[] => []);
  const parts = views.map((view) => view.doubtful);
  run(ofFields, parts, found, house);
  for (let i = 0; i < parts.length; i++) {
    const part = parts[i];
    if (!part) continue;
    const sound = sounds(part.expected);
    for (const p of part.data) if (isShared(p.field) && isProved(p, part, found[i]!)) sound.add(p.field);
  }
  run(ofRecord, views, found, house);
  for (const f of found) if (f.length > 1) f.sort(byWeight);
  return found;
}

/** Runs checks one after another over all views, and puts what they find with the view's findings. */
function run(
  { checks, wanted }: Pass,
  views: readonly (RecordView | null)[],
  found: readonly Finding[][],
  house: HouseRules,
): void {
  let rule = '';
  let here: Finding[] = [];
  const tell: Tell = ({ severity, where, message, fix }) =>
    here.push(fix ? { rule, severity, where, message, fix } : { rule, severity, where, message });
  const wants = wanted(views);
  for (let c = 0; c < checks.length; c++) {
    const check = checks[c]!;
    rule = check.rule;
    const want = wants[c]!;
    for (let k = 0; k < want.length; k++) {
      const i = want[k]!;
      here = found[i]!;
      check.run(views[i]!, tell, house);
    }
  }
}

const byWeight = (a: Finding, b: Finding) =>
  WEIGHT[a.severity] - WEIGHT[b.severity] ||
  a.where.field - b.where.field ||
  ORDER.get(a.rule)! - ORDER.get(b.rule)!;

/** Whether nothing was found at fault with a field. */
const isProved = (p: Placed, { irregular }: RecordView, found: readonly Finding[]): boolean =>
  !found.some((f) => f.where.field === p.at) && !irregular.includes(p);

/** What a checker works with, and what it has learnt. */
interface Session extends Known {
  readonly house: HouseRules;
  /** The checks of each field by itself, and those of the record. */
  readonly ofFields: Pass;
  readonly ofRecord: Pass;
}

/** Checks, and which of them a record wants. */
interface Pass {
  readonly checks: readonly Check[];
  readonly wanted: ReturnType<typeof wantedBy>;
}
const passOf = (checks: readonly Check[]): Pass => ({ checks, wanted: wantedBy(checks) });
