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
export const checkRecord = (record: MarcRecord, house: HouseRules): Finding[] =>
  checkRecords([record], house)[0]!;

/** Records that are looked at together. */
export const TOGETHER = 24;

/**
 * The same for each of many records. Each check looks at a few records before the next one does: seventy checks in turn over
 * one record make the processor fetch all of their code anew for every record.
 */
export function checkRecords(records: readonly MarcRecord[], house: HouseRules): Finding[][] {
  if (records.length <= TOGETHER) return checkTogether(records, house);
  const all: Finding[][] = [];
  for (let at = 0; at < records.length; at += TOGETHER)
    all.push(...checkTogether(records.slice(at, at + TOGETHER), house));
  return all;
}

function checkTogether(records: readonly MarcRecord[], house: HouseRules): Finding[][] {
  const { sounds, ofFields, ofRecord } = knownFor(house);
  const views = records.map((record) => viewOf(record, sounds));
  const found = records.map((): Finding[] => []);
  const parts = views.map((view) => (view.doubtful.length ? view.only(view.doubtful) : null));
  run(ofFields, parts, found, house);
  for (let i = 0; i < parts.length; i++) {
    const part = parts[i];
    if (!part) continue;
    const sound = sounds(part.expected);
    for (const p of proved(part, found[i]!)) sound.add(p.field);
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
  const wants = views.map((view) => (view ? wanted(view) : null));
  for (let c = 0; c < checks.length; c++) {
    const check = checks[c]!;
    rule = check.rule;
    for (let i = 0; i < views.length; i++) {
      if (!wants[i]?.[c]) continue;
      here = found[i]!;
      check.run(views[i]!, tell, house);
    }
  }
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

interface Known {
  readonly house: HouseRules;
  readonly sounds: ReturnType<typeof soundFields>;
  /** The checks of each field by itself, and those of the record. */
  readonly ofFields: Pass;
  readonly ofRecord: Pass;
}
let last: Known | undefined;
/** House rules are the same value from record to record. */
function knownFor(house: HouseRules): Known {
  if (last?.house === house) return last;
  const on = CHECKS.filter((c) => !house.checksOff.includes(c.rule));
  const [ofFields, ofRecord] = [on.filter((c) => c.each), on.filter((c) => !c.each)].map(passOf);
  return (last = { house, sounds: soundFields(), ofFields: ofFields!, ofRecord: ofRecord! });
}

/** Checks, and which of them can find something in a record: a number for each, 1 or 0. */
interface Pass {
  readonly checks: readonly Check[];
  wanted(view: RecordView): Uint8Array;
}

const MOST = 5_000;
/** Which checks a record wants hangs on its format and its tags; the same sets of tags come again and again. */
function passOf(checks: readonly Check[]): Pass {
  const known: Record<Format, Map<string, Uint8Array>> = {
    bibliographic: new Map(),
    authority: new Map(),
    holdings: new Map(),
  };
  const wants = ({ formats = BIBLIOGRAPHIC, needs }: Check, format: Format, tags: string) =>
    formats.includes(format) && (!needs || needs.some((tag) => tags.includes(`${tag} `)));
  return {
    checks,
    wanted({ format, tags }) {
      let wanted = known[format].get(tags);
      if (!wanted) {
        wanted = Uint8Array.from(checks, (c) => (wants(c, format, tags) ? 1 : 0));
        if (known[format].size < MOST) known[format].set(tags, wanted);
      }
      return wanted;
    },
  };
}

const BIBLIOGRAPHIC: readonly Format[] = ['bibliographic'];
