import type { FindingKind } from '@osier/contract';
import { CHECKS, type Severity } from '@osier/core/checks';
import type { Services } from '../services';

const ORDER: readonly Severity[] = ['error', 'warning', 'advice'];

/** What the checks found in a delivery's waiting records, grouped by kind, worst and most frequent first. */
export async function findingKinds({ store }: Services, delivery: number): Promise<FindingKind[]> {
  const rows = await store.rows<Omit<FindingKind, 'title'>>(
    `SELECT json_extract(f.value, '$.rule') AS rule, json_extract(f.value, '$.severity') AS severity,
       COUNT(*) AS findings, COUNT(DISTINCT i.id) AS records,
       COALESCE(SUM(json_extract(f.value, '$.fix.safe') = 1), 0) AS safe, COALESCE(SUM(json_extract(f.value, '$.fix.safe') = 0), 0) AS look
     FROM incoming i JOIN incoming_fields n ON n.id = i.id, json_each(n.findings) f WHERE i.delivery = :delivery AND i.state = 'waiting' GROUP BY 1, 2`,
    { delivery },
  );
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
