import type { Review } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { groupedBarcode } from '@osier/core/barcodes';
import { counted, invert, squash, type Change, type ChangeSet, type Versioned } from '@osier/core/changes';
import type { Incoming } from '@osier/core/deliveries';
import type { Copy, Holding } from '@osier/core/holdings';
import { tellConflicts } from '../daybook/daybook';
import { quoted } from '../daybook/sentences';
import type { Services } from '../services';
import { deliveryJob } from './delivery-job';
import { entryChanges, planOf } from '../store/undo';
import { inChunks } from './in-chunks';
import { whole } from './settings';

/** What taking back some accepted records does, and what stays because something stands in the way. */
interface Plan {
  readonly changes: ChangeSet;
  /** Incoming records that go back to waiting. */
  readonly back: readonly Versioned<Incoming>[];
  /** Records that stay accepted, each with the sentences why. */
  readonly left: readonly { readonly row: Versioned<Incoming>; readonly why: readonly string[] }[];
}

/** The copies that were made with a record; those of a skipped one were never made. */
const madeCopies = ({ value }: Versioned<Incoming>) =>
  value.state === 'accepted' ? whole(value).copies : [];

/** The changes by which a delivery's records were accepted, one an object. */
async function acceptance({ store }: Services, delivery: number): Promise<ChangeSet> {
  const entries = await store.rows<{ entry: number }>(
    `SELECT DISTINCT o.entry FROM daybook_objects o JOIN incoming i ON i.id = o.object JOIN daybook d ON d.id = o.entry
     WHERE o.kind = 'incoming' AND i.delivery = :delivery AND d.act IN ('accept', 'take-back') ORDER BY o.entry`,
    { delivery },
  );
  const all: Change[] = [];
  for (const { entry } of entries) all.push(...(await entryChanges(store, entry)));
  return squash(all);
}

/**
 * Which of the changes belong to which record: its mark, the record of the catalogue that it became, its holdings and
 * copies. `null` for headings: they go when no record has them any more.
 */
function grouped(changes: ChangeSet, rows: readonly Versioned<Incoming>[]) {
  const byRecord = new Map<number, number[]>();
  for (const r of rows)
    if (r.value.record !== null)
      byRecord.set(r.value.record, [...(byRecord.get(r.value.record) ?? []), r.id]);
  const byBarcode = new Map(rows.flatMap((r) => madeCopies(r).map((c) => [c.barcode, r.id] as const)));
  const owners = new Map<Change, readonly number[] | null>();
  const inHolding = new Map<number, Set<number>>();
  for (const c of changes) {
    if (c.kind === 'incoming') owners.set(c, [c.id]);
    else if (c.kind === 'record') owners.set(c, byRecord.get(c.id) ?? []);
    else if (c.kind === 'copy') {
      const { barcode, holding } = (c.after ?? c.before) as Copy;
      const owner = byBarcode.get(barcode);
      owners.set(c, owner === undefined ? [] : [owner]);
      if (owner !== undefined) inHolding.set(holding, (inHolding.get(holding) ?? new Set()).add(owner));
    } else if (c.kind === 'heading') owners.set(c, null);
  }
  for (const c of changes)
    if (c.kind === 'holding')
      owners.set(c, [
        ...(inHolding.get(c.id) ?? byRecord.get(((c.after ?? c.before) as Holding).record) ?? []),
      ]);
  return owners;
}

/** Plans taking back these records out of all that were accepted with `changes`. */
async function plan(
  services: Services,
  changes: ChangeSet,
  rows: readonly Versioned<Incoming>[],
  all: readonly Versioned<Incoming>[],
): Promise<Plan> {
  const owners = grouped(changes, all);
  const why = new Map<number, Set<string>>();
  const tell = (id: number, said: string) => why.set(id, (why.get(id) ?? new Set()).add(said));
  let going = new Set(rows.map((r) => r.id));
  const titles = new Map(all.map((r) => [r.id, r.value.seq]));
  for (const said of await onLoan(services, rows)) tell(said.id, said.why);
  for (;;) {
    going = new Set([...going].filter((id) => !why.has(id)));
    // A record that several of the file were merged into goes back with all of them, or not at all.
    for (const [c, of] of owners)
      if (c.kind === 'record' && of?.some((id) => going.has(id)) && !of.every((id) => going.has(id)))
        for (const id of of.filter((x) => going.has(x)))
          tell(
            id,
            `Record ${c.id} also has record ${of
              .filter((x) => !going.has(x))
              .map((x) => titles.get(x))
              .join(', ')} of this file in it; take them back together.`,
          );
    const taken = changes.filter((c) => {
      const of = owners.get(c);
      return of === null || (of !== undefined && of.length > 0 && of.every((id) => going.has(id)));
    });
    const planned = await planOf(services.store, invert(taken));
    const source = new Map(taken.map((c) => [`${c.kind} ${c.id}`, c]));
    const conflicts = planned.conflicts.filter((c) => c.kind !== 'heading');
    for (const c of conflicts) {
      const [told] = await tellConflicts(services, [c], 0);
      for (const id of owners.get(source.get(`${c.kind} ${c.id}`)!) ?? []) tell(id, told!.message);
    }
    const next = [...going].filter((id) => !why.has(id));
    if (next.length === going.size) {
      const stuck = new Set(planned.conflicts.filter((c) => c.kind === 'heading').map((c) => c.id));
      return {
        changes: planned.changes.filter((c) => !(c.kind === 'heading' && stuck.has(c.id))),
        back: rows.filter((r) => going.has(r.id)),
        left: rows.filter((r) => why.has(r.id)).map((row) => ({ row, why: [...why.get(row.id)!] })),
      };
    }
  }
}

/** Copies that are lent: the books are not in the house, so that their records stay. */
async function onLoan({ loans }: Services, rows: readonly Versioned<Incoming>[]) {
  const of = rows.flatMap((r) => madeCopies(r).map((c) => ({ id: r.id, barcode: c.barcode })));
  if (of.length === 0) return [];
  const due = await loans.dueDates(of.map((x) => x.barcode));
  if (due === null)
    return of.map(({ id }) => ({
      id,
      why: 'The loans desk does not answer, so it is not known whether its copies are lent.',
    }));
  return of
    .filter(({ barcode }) => due.get(barcode))
    .map(({ id, barcode }) => ({
      id,
      why: `Copy ${groupedBarcode(barcode)} is on loan until ${due.get(barcode)}.`,
    }));
}

const accepted = ({ store }: Services, delivery: number) =>
  store.select('incoming', "delivery = :delivery AND state <> 'waiting' ORDER BY seq", { delivery });

/** What taking back will do, from the plan that does it. None chosen means all. */
export async function reviewTakeBack(
  services: Services,
  delivery: number,
  ids: readonly number[],
): Promise<Review> {
  const all = await accepted(services, delivery);
  const chosen = new Set(ids);
  const rows = ids.length ? all.filter((r) => chosen.has(r.id)) : all;
  const { changes, back, left } = await plan(services, await acceptance(services, delivery), rows, all);
  const count = (kind: string, gone: boolean) =>
    changes.filter((c) => c.kind === kind && (c.after === null) === gone).length;
  const gone = [
    count('record', true) && counted(count('record', true), 'record'),
    count('copy', true) && counted(count('copy', true), 'copy', 'copies'),
    count('heading', true) && `${counted(count('heading', true), 'heading')} that nothing else has`,
  ].filter(Boolean);
  const said = [
    gone.length && `Out of the catalogue: ${gone.join(', ')}.`,
    count('record', false) && `As before the delivery: ${counted(count('record', false), 'record')}.`,
  ].filter((x) => typeof x === 'string');
  return {
    sentence: `${counted(back.length, 'record')} go back to waiting in this delivery.`,
    verb: `Take back ${counted(back.length, 'record')}`,
    count: back.length,
    consequences: [
      ...said,
      ...(left.length
        ? [`Left as now, because something was done since: ${counted(left.length, 'record')}.`]
        : []),
    ],
    rows: [
      ...left.map(({ row, why }) => reviewRow(row, why.join(' '), false)),
      ...back.map((row) => reviewRow(row, null, true)),
    ].slice(0, SHOWN),
    more: Math.max(0, left.length + back.length - SHOWN),
  };
}
const SHOWN = 200;

function reviewRow({ id, value }: Versioned<Incoming>, exception: string | null, canLeaveOut: boolean) {
  const brief = briefOf(value.marc);
  return {
    id,
    label: brief.title,
    detail: [brief.author, brief.year, ...(value.record ? [`record ${value.record}`] : [])]
      .filter(Boolean)
      .join(' · '),
    exception,
    before: { text: value.state === 'skipped' ? 'skipped' : `record ${value.record}` },
    after: { text: exception ? 'stays' : 'waiting' },
    canLeaveOut,
  };
}

/** Job: takes records back in chunks, each with all that came with it; the others stay, and the job says how many. */
export const takeBack = deliveryJob(async (services, run, id, delivery) => {
  const chosen = new Set(run.work.incoming as number[]);
  const changes = await acceptance(services, id);
  const said = (n: number) => `Took back ${counted(n, 'record')} of ${quoted(delivery.name)}`;
  const leaveOut = new Set(run.work.leaveOut as number[]);
  const totals = await inChunks(services, run, {
    act: 'take-back',
    delivery: id,
    which: "state <> 'waiting'",
    leaveOut,
    sentence: (t) => said(t.back ?? 0),
    async plan(chunk) {
      const all = await accepted(services, id);
      const here = new Set(chunk.map((c) => c.id));
      const records = new Set(chunk.map((c) => c.value.record));
      // Records that share one of the catalogue go together, although one of them stands in another chunk.
      const wanted = all.filter(
        (r) =>
          !leaveOut.has(r.id) &&
          (chosen.size === 0 || chosen.has(r.id)) &&
          (here.has(r.id) || (r.value.record !== null && records.has(r.value.record))),
      );
      const planned = await plan(services, changes, wanted, all);
      return {
        changes: planned.changes,
        totals: {
          back: planned.back.length,
          left: planned.left.filter((l) => here.has(l.row.id)).length,
        },
      };
    },
  });
  const left = totals.left
    ? ` ${counted(totals.left, 'record')} stayed, because something was done with them since.`
    : '';
  return `${said(totals.back ?? 0)}.${left}`;
});
