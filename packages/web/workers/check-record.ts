import { checkerFor, fixAll, type Checker, type Finding } from '@osier/core/checks';
import type { HouseRules } from '@osier/core/house';
import type { MarcRecord } from '@osier/core/marc';

/** What the page asks: the findings of a record, or the record with all its safe fixes. `n` tells answers apart. */
export interface CheckOrder {
  readonly n: number;
  readonly record: MarcRecord;
  readonly house: HouseRules;
  readonly fix: boolean;
}
export interface CheckAnswer {
  readonly n: number;
  readonly record: MarcRecord;
  readonly findings: readonly Finding[];
  /** How many findings were corrected on the way. */
  readonly corrected: number;
}

let kept: { readonly rules: string; readonly checker: Checker } | null = null;

/** The checker of a house, as long as the same house asks. */
function checkerOf(house: HouseRules): Checker {
  const rules = JSON.stringify(house);
  if (kept?.rules !== rules) kept = { rules, checker: checkerFor(house) };
  return kept.checker;
}

/** Checks a record that is being edited beside the page. */
self.onmessage = ({ data: { n, record, house, fix } }: MessageEvent<CheckOrder>) => {
  const checker = checkerOf(house);
  const fixed = fix ? fixAll(record, checker) : { record, corrected: [] };
  self.postMessage({
    n,
    record: fixed.record,
    findings: checker.check(fixed.record),
    corrected: fixed.corrected.length,
  } satisfies CheckAnswer);
};
