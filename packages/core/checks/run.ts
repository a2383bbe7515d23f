import type { Format } from '../format';
import type { HouseRules } from '../house';
import type { MarcRecord } from '../marc';
import { CHECKS } from './all';
import type { Check, Finding, Severity, Tell } from './finding';
import { soundFields } from './sound-fields';
import { viewOf, type Placed, type RecordView } from './view';

const WEIGHT: Record<Severity, number> = { error: 0, warning: 1, advice: 2 };
const ORDER = new Map(CHECKS.map((c, i) => [c.rule, i]));

/** What the checks that are on find in a record, worst first, then by place. */
export function checkRecord(record: MarcRecord, house: HouseRules): Finding[] {
  const found: Finding[] = [];
  const known = knownFor(house);
  const view = viewOf(record, known.sounds);
  let rule = '';
  const tell: Tell = ({ severity, where, message, fix }) =>
    found.push(fix ? { rule, severity, where, message, fix } : { rule, severity, where, message });
  const run = (checks: readonly Check[], over: RecordView) => {
    for (const check of checks) {
      rule = check.rule;
      check.run(over, tell, house);
    }
  };
  const { doubtful } = view;
  if (doubtful.length > 0) {
    const part = view.only(doubtful);
    run(known.checks(part, true), part);
    const sounds = known.sounds(view.expected);
    for (const p of proved(part, found)) sounds.add(p.field);
  }
  run(known.checks(view, false), view);
  return found.length < 2 ? found : found.sort(byWeight);
}

const byWeight = (a: Finding, b: Finding) =>
  WEIGHT[a.severity] - WEIGHT[b.severity] ||
  a.where.field - b.where.field ||
  ORDER.get(a.rule)! - ORDER.get(b.rule)!;

/** The fields with nothing to find fault with. */
function proved({ data, irregular }: RecordView, found: readonly Finding[]): readonly Placed[] {
  if (found.length === 0 && irregular.length === 0) return data;
  const at = new Set(found.map((f) => f.where.field));
  return data.filter((p) => !at.has(p.at) && !irregular.includes(p));
}

const MOST = 5_000;
interface Known {
  readonly house: HouseRules;
  readonly sounds: ReturnType<typeof soundFields>;
  checks(view: RecordView, each: boolean): readonly Check[];
}
let last: Known | undefined;
/** House rules are the same value from record to record. */
const knownFor = (house: HouseRules): Known =>
  last?.house === house ? last : (last = { house, sounds: soundFields(), checks: checksFor(house) });

/**
 * The checks that are on and can find something in a record of this format with these tags: those of each field, or those
 * of the record. The same sets of tags come again and again.
 */
function checksFor(house: HouseRules): Known['checks'] {
  const [ofFields, ofRecord] = [true, false].map((each) => {
    const on = CHECKS.filter((c) => (c.each ?? false) === each && !house.checksOff.includes(c.rule));
    return chosenFrom(on);
  });
  return (view, each) => (each ? ofFields! : ofRecord!)(view);
}

function chosenFrom(checks: readonly Check[]): (view: RecordView) => readonly Check[] {
  const lists: Record<Format, Map<string, readonly Check[]>> = {
    bibliographic: new Map(),
    authority: new Map(),
    holdings: new Map(),
  };
  return ({ format, tags }) => {
    let list = lists[format].get(tags);
    if (!list) {
      list = checks.filter(
        (c) =>
          (c.formats ?? BIBLIOGRAPHIC).includes(format) &&
          (!c.needs || c.needs.some((tag) => tags.includes(`${tag} `))),
      );
      if (lists[format].size < MOST) lists[format].set(tags, list);
    }
    return list;
  };
}

const BIBLIOGRAPHIC: readonly Format[] = ['bibliographic'];
