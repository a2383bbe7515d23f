import type { FindingKind } from '@osier/contract';
import { CHECKS, type Severity } from '@osier/core/checks';
import type { Services } from '../services';
import { countWaitingFindings } from './queries';

const ORDER: readonly Severity[] = ['error', 'warning', 'advice'];

/** What the checks found in a delivery's waiting records, grouped by kind, worst and most frequent first. */
export async function findingKinds({ store }: Services, delivery: number): Promise<FindingKind[]> {
  const rows = await countWaitingFindings(store, delivery);
  const titles = new Map(CHECKS.map((c) => [c.rule, c.title]));
  return rows
    .map((r) => ({ ...r, title: titles.get(r.rule) ?? r.rule }))
    .sort(
      (a, b) =>
        ORDER.indexOf(a.severity) - ORDER.indexOf(b.severity) ||
        b.records - a.records ||
        (a.rule < b.rule ? -1 : 1),
    );
}
