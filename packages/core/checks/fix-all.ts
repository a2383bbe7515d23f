import { applyEdits, type MarcRecord } from '../marc';
import type { Finding } from './finding';
import type { Checker } from './run';

/** More fixes than this in one record are not applied: something would be going in circles. */
const MOST = 500;

/**
 * Applies every safe fix, one after another, each worked out on the record that the last one left. `rules` limits it to
 * some checks. Gives the record and the findings that were corrected.
 */
export function fixAll(
  record: MarcRecord,
  checker: Checker,
  rules?: ReadonlySet<string>,
): { record: MarcRecord; corrected: readonly Finding[] } {
  const corrected: Finding[] = [];
  let now = record;
  while (corrected.length < MOST) {
    const next = checker.check(now).find((f) => f.fix?.safe && (!rules || rules.has(f.rule)));
    if (!next) break;
    now = applyEdits(now, next.fix!.edits);
    corrected.push(next);
  }
  return { record: now, corrected };
}
