import type { Review, ReviewRow } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { counted, type Change, type Versioned } from '@osier/core/changes';
import { acceptPlan, type AcceptContext, type AcceptPlan, type Incoming } from '@osier/core/deliveries';
import { headingsOf } from '@osier/core/headings';
import type { MarcRecord } from '@osier/core/marc';
import { findMatches, matchKeys } from '@osier/core/matching';
import { quoted } from '../daybook/sentences';
import type { JobRun } from '../jobs/jobs';
import type { Services } from '../services';
import { candidatesFor } from './find-candidates';
import { inChunks, type Totals } from './in-chunks';

const SHOWN = 60;

/** What the plan needs to know of the catalogue, looked up for a whole chunk at once. */
async function contextFor(
  { store }: Services,
  rows: readonly Versioned<Incoming>[],
  next: (kind: string) => () => number,
): Promise<AcceptContext> {
  const targets = rows
    .filter((r) => r.value.decision === 'replace' && r.value.target !== null)
    .map((r) => r.value.target!);
  const held = await store.readMany('record', [...new Set(targets)]);
  const uses = rows.filter((r) => r.value.decision !== 'skip').flatMap((r) => headingsOf(r.value.marc));
  const keys = [...new Set(uses.map((u) => u.key))];
  const known = keys.length
    ? await store.rows<{ kind: string; key: string }>(
        'SELECT kind, key FROM heading_keys WHERE key IN (:keys)',
        { keys },
      )
    : [];
  const headings = new Set(known.map((k) => `${k.kind} ${k.key}`));
  const since = await heldSince(
    store,
    rows.filter((r) => r.value.decision === 'add'),
  );
  return {
    house: (await store.house()).value,
    held: new Map(held.map((h) => [h.id, h])),
    knowsHeading: (kind, key) => headings.has(`${kind} ${key}`),
    heldSince: (row) => since.get(row.id) ?? null,
    nextRecordId: next('record'),
    nextHeadingId: next('heading'),
  };
}

/** Records with the same number that were not there when the delivery was read, and are not from it. */
async function heldSince(
  store: Services['store'],
  rows: readonly Versioned<Incoming>[],
): Promise<Map<number, number>> {
  const found = new Map<number, number>();
  const keys = new Map(rows.map((r) => [r.id, matchKeys(r.value.marc).map((k) => [k.kind, k.key] as const)]));
  const candidates = await candidatesFor(store, [...keys.values()].flat());
  if (candidates.size === 0) return found;
  const delivery = rows[0]!.value.delivery;
  const ours = new Set(
    (
      await store.rows<{ record: number }>(
        'SELECT record FROM incoming WHERE delivery = :delivery AND record IS NOT NULL',
        { delivery },
      )
    ).map((r) => r.record),
  );
  const reads = await store.rows<{ incoming: number; matches: string }>(
    'SELECT incoming, matches FROM incoming_read WHERE incoming IN (:ids)',
    { ids: rows.map((r) => r.id) },
  );
  const seen = new Map(
    reads.map((r) => [
      r.incoming,
      new Set((JSON.parse(r.matches) as { record: number }[]).map((m) => m.record)),
    ]),
  );
  for (const row of rows) {
    const all = keys.get(row.id)!.flatMap(([kind, key]) => candidates.get(`${kind} ${key}`) ?? []);
    const fresh = findMatches(row.value.marc, all).find(
      (m) => !ours.has(m.record) && !seen.get(row.id)?.has(m.record),
    );
    if (fresh) found.set(row.id, fresh.record);
  }
  return found;
}

const totalsOf = (plan: AcceptPlan): Totals => ({
  added: plan.added,
  replaced: plan.replaced,
  skipped: plan.skipped,
  headings: plan.newHeadings,
  left: plan.left.length,
});

function sentenceOf(name: string, t: Totals): string {
  const parts = [`${t.added ?? 0} new`, `${t.replaced ?? 0} replaced`, `${t.skipped ?? 0} skipped`];
  if (t.headings) parts.push(counted(t.headings, 'new heading'));
  return `Accepted ${counted((t.added ?? 0) + (t.replaced ?? 0), 'record')} of ${quoted(name)}: ${parts.join(', ')}`;
}

/** Job: accepts a delivery chunk by chunk. */
export const acceptDelivery =
  (services: Services) =>
  async (run: JobRun): Promise<string | null> => {
    const { store } = services;
    const id = Number(run.work.delivery);
    const delivery = await store.read('delivery', id);
    if (!delivery) return 'The delivery is no longer there.';
    const totals = await inChunks(services, run, {
      act: 'accept',
      delivery: id,
      leaveOut: new Set(run.work.leaveOut as number[]),
      sentence: (t) => sentenceOf(delivery.value.name, t),
      plan: async (chunk) => {
        // Numbers are reserved for the most a chunk can need; a gap harms nobody.
        const records = await store.nextIds('record', chunk.length);
        const headings = await store.nextIds(
          'heading',
          chunk.reduce((n, c) => n + headingsOf(c.value.marc).length, 1),
        );
        const from: Record<string, number> = { record: records, heading: headings };
        const context = await contextFor(services, chunk, (kind) => () => from[kind]!++);
        const plan = acceptPlan(chunk, context);
        return { changes: plan.changes, totals: totalsOf(plan) };
      },
    });
    const left = totals.left
      ? ` ${counted(totals.left, 'record')} stayed in the delivery and need another look.`
      : '';
    return `${sentenceOf(delivery.value.name, totals)}.${left}`;
  };

/** The review of accepting: the same plan, with numbers that are not kept. */
export async function reviewAccept(
  services: Services,
  id: number,
  leaveOut: ReadonlySet<number>,
): Promise<Review> {
  const { store } = services;
  const rows = (
    await store.select('incoming', "delivery = :id AND state = 'waiting' ORDER BY seq", { id })
  ).filter((r) => !leaveOut.has(r.id));
  const errors = new Map(
    (
      await store.rows<{ id: number; errors: number }>(
        "SELECT id, errors FROM incoming WHERE delivery = :id AND state = 'waiting'",
        { id },
      )
    ).map((r) => [r.id, r.errors]),
  );
  let next = 0;
  const plan = acceptPlan(rows, await contextFor(services, rows, () => () => --next));
  const why = new Map(plan.left.map((l) => [l.incoming, l.why]));
  const replaced = new Map(
    plan.changes
      .filter((c) => c.kind === 'record' && c.before !== null)
      .map((c) => [c.id, c as Change<MarcRecord>]),
  );
  const shown = rows
    .filter((r) => r.value.decision !== 'skip')
    .map((r): ReviewRow => {
      const brief = briefOf(r.value.marc);
      const change =
        r.value.decision === 'replace' && r.value.target !== null ? replaced.get(r.value.target) : undefined;
      const bad = errors.get(r.id) ?? 0;
      const exception =
        why.get(r.id) ??
        (change
          ? `Replaces record ${change.id}.`
          : bad
            ? `${counted(bad, 'error')} found by the checks.`
            : null);
      return {
        id: r.id,
        label: brief.title,
        detail: [brief.author, brief.year, brief.isbn].filter(Boolean).join(' · '),
        exception,
        before: change?.before ? { marc: change.before } : null,
        after: { marc: change?.after ?? r.value.marc },
        canLeaveOut: true,
      };
    });
  shown.sort((a, b) => Number(b.exception !== null) - Number(a.exception !== null));
  const count = plan.added + plan.replaced;
  const consequences: string[] = [];
  if (plan.replaced)
    consequences.push(
      `${counted(plan.replaced, 'record')} in the catalogue will be replaced. Protected fields and copies stay.`,
    );
  if (plan.newHeadings)
    consequences.push(
      `${counted(plan.newHeadings, 'new heading')} will be made for names and subjects that are not known yet.`,
    );
  if (plan.left.length)
    consequences.push(
      `${counted(plan.left.length, 'record')} stay in the delivery, because they need another look.`,
    );
  return {
    sentence: `${counted(plan.added, 'record')} will be added, ${plan.replaced} replaced, ${plan.skipped} skipped.`,
    verb: `Accept ${counted(count, 'record')}`,
    count,
    consequences,
    rows: shown.slice(0, SHOWN),
    more: Math.max(0, shown.length - SHOWN),
  };
}
