import type { Review } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { groupedBarcode } from '@osier/core/barcodes';
import {
  counted,
  invert,
  sameValue,
  squash,
  type Change,
  type ChangeSet,
  type Versioned,
} from '@osier/core/changes';
import type { Incoming, IncomingRecord } from '@osier/core/deliveries';
import { headingsOf, keyOfHeading, type Heading } from '@osier/core/headings';
import type { Copy, Holding } from '@osier/core/holdings';
import type { MarcRecord } from '@osier/core/marc';
import { tellConflicts } from '../daybook/daybook';
import { quoted } from '../daybook/sentences';
import { PAGE_ROWS } from '../http/review-page';
import type { JobRun } from '../jobs/jobs';
import { patiently, type Services } from '../services';
import { deliveryJob } from './delivery-job';
import { entryChanges, planOf } from '../store/undo';
import { inChunks } from './in-chunks';
import { withTheirFields } from './incoming-records';

/** What taking back some accepted records does, and what stays because something stands in the way. */
interface Plan {
  readonly changes: ChangeSet;
  /** Incoming records that go back to waiting. */
  readonly back: readonly Versioned<Incoming>[];
  /** Records that stay accepted, each with the sentences why. */
  readonly left: readonly { readonly row: Versioned<Incoming>; readonly why: readonly string[] }[];
}

/** The copies that were made with a record; those of a skipped one were never made. */
const madeCopies = ({ value }: Versioned<Incoming>) => (value.state === 'accepted' ? value.copies : []);

/** What accepting a delivery did, found by the incoming record that it belongs to. */
interface Acceptance {
  readonly of: ReadonlyMap<number, readonly Change[]>;
  readonly owners: ReadonlyMap<Change, readonly number[]>;
  /** New headings by kind and key: they go when no record has them any more. */
  readonly headings: ReadonlyMap<string, Change>;
}

async function acceptance({ store }: Services, delivery: number): Promise<Acceptance> {
  const entries = await store.rows<{ entry: number }>(
    `SELECT DISTINCT o.entry FROM incoming i CROSS JOIN daybook_objects o ON o.kind = 'incoming' AND o.object = i.id JOIN daybook d ON d.id = o.entry
     WHERE i.delivery = :delivery AND d.act IN ('accept', 'take-back', 'undo') ORDER BY o.entry`,
    { delivery },
  );
  const standing = new Map<string, Change>();
  for (const { entry } of entries) {
    const changes = await entryChanges(store, entry);
    if (changes.some(accepts)) for (const c of squash(changes)) keepStanding(standing, c);
  }
  return grouped([...standing.values()], await accepted({ store }, delivery));
}

/** Whether a change accepts an incoming record, or takes that back. */
function accepts({ kind, before, after }: Change): boolean {
  if (kind !== 'incoming') return false;
  return (before as Incoming | null)?.state !== (after as Incoming | null)?.state;
}

/** Adds a change to those that stand; what brings an object back to where they began leaves nothing standing. */
function keepStanding(standing: Map<string, Change>, change: Change): void {
  const key = `${change.kind} ${change.id}`;
  const first = standing.get(key);
  if (first && sameValue(first.before, change.after)) standing.delete(key);
  else standing.set(key, first ? { ...first, after: change.after } : change);
}

const headingUse = (kind: string, key: string) => `${kind} ${key}`;

/**
 * Which of the changes belong to which record: its mark, the record of the catalogue that it became, its holdings and
 * copies.
 */
function grouped(changes: ChangeSet, rows: readonly Versioned<Incoming>[]): Acceptance {
  const byRecord = new Map<number, number[]>();
  for (const r of rows)
    if (r.value.record !== null)
      byRecord.set(r.value.record, [...(byRecord.get(r.value.record) ?? []), r.id]);
  const byBarcode = new Map(rows.flatMap((r) => madeCopies(r).map((c) => [c.barcode, r.id] as const)));
  const owners = new Map<Change, readonly number[]>();
  const headings = new Map<string, Change>();
  const inHolding = new Map<number, Set<number>>();
  for (const c of changes) {
    if (c.kind === 'incoming') owners.set(c, [c.id]);
    else if (c.kind === 'record') owners.set(c, byRecord.get(c.id) ?? []);
    else if (c.kind === 'copy') {
      const { barcode, holding } = (c.after ?? c.before) as Copy;
      const owner = byBarcode.get(barcode);
      owners.set(c, owner === undefined ? [] : [owner]);
      if (owner !== undefined) inHolding.set(holding, (inHolding.get(holding) ?? new Set()).add(owner));
    } else if (c.kind === 'heading') {
      const heading = (c.after ?? c.before) as Heading;
      headings.set(headingUse(heading.kind, keyOfHeading(heading)), c);
    }
  }
  for (const c of changes)
    if (c.kind === 'holding')
      owners.set(c, [
        ...(inHolding.get(c.id) ?? byRecord.get(((c.after ?? c.before) as Holding).record) ?? []),
      ]);
  const of = new Map<number, Change[]>();
  for (const [c, ids] of owners)
    for (const id of ids) {
      const list = of.get(id);
      if (list) list.push(c);
      else of.set(id, [c]);
    }
  return { of, owners, headings };
}

/** Plans taking back these records out of all that were accepted; `rows` as they are now. */
async function plan(
  services: Services,
  { of, owners, headings }: Acceptance,
  rows: readonly Versioned<Incoming>[],
): Promise<Plan> {
  const mine = new Set(rows.flatMap((r) => of.get(r.id) ?? []));
  const sharing = [...new Set([...mine].flatMap((c) => owners.get(c)!))];
  // What was taken back before has no part in it any more.
  const live = new Map(
    (await services.store.readMany('incoming', sharing))
      .filter((r) => r.value.state !== 'waiting')
      .map((r) => [r.id, r.value.seq]),
  );
  const ownersNow = new Map([...mine].map((c) => [c, owners.get(c)!.filter((id) => live.has(id))]));
  const why = new Map<number, Set<string>>();
  const tell = (id: number, said: string) => why.set(id, (why.get(id) ?? new Set()).add(said));
  let going = new Set(rows.map((r) => r.id));
  for (const said of await onLoan(services, rows)) tell(said.id, said.why);
  for (;;) {
    going = new Set([...going].filter((id) => !why.has(id)));
    // A record that several of the file were merged into goes back with all of them, or not at all.
    for (const [c, ids] of ownersNow)
      if (c.kind === 'record' && ids.some((id) => going.has(id)) && !ids.every((id) => going.has(id)))
        for (const id of ids.filter((x) => going.has(x)))
          tell(
            id,
            `Record ${c.id} also has record ${ids
              .filter((x) => !going.has(x))
              .map((x) => live.get(x))
              .join(', ')} of this file in it; take them back together.`,
          );
    const taken = [...ownersNow].flatMap(([c, ids]) =>
      ids.length > 0 && ids.every((id) => going.has(id)) ? [c] : [],
    );
    const used = taken.filter((c) => c.kind === 'record' && c.after !== null);
    const made = new Set(
      used
        .flatMap((c) => headingsOf(c.after as MarcRecord))
        .flatMap((u) => headings.get(headingUse(u.kind, u.key)) ?? []),
    );
    const planned = await planOf(services.store, invert([...made, ...taken]));
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

const accepted = ({ store }: Pick<Services, 'store'>, delivery: number) =>
  store.select('incoming', "delivery = :delivery AND state <> 'waiting' ORDER BY seq", { delivery });

/** What taking back will do, from the plan that does it. None chosen means all. */
export async function reviewTakeBack(
  quick: Services,
  delivery: number,
  ids: readonly number[],
  from = 0,
): Promise<Review> {
  const services = patiently(quick);
  const all = await accepted(services, delivery);
  const chosen = new Set(ids);
  const rows = ids.length ? all.filter((r) => chosen.has(r.id)) : all;
  const { changes, back, left } = await plan(services, await acceptance(services, delivery), rows);
  const shown = [
    ...left.map(({ row, why }) => ({ row, why: why.join(' ') })),
    ...back.map((row) => ({ row, why: null })),
  ].slice(from, from + PAGE_ROWS);
  const whole = await withTheirFields(
    services.store,
    shown.map((s) => s.row),
  );
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
    sentence: `${counted(back.length, 'record')} ${back.length === 1 ? 'goes' : 'go'} back to waiting in this delivery.`,
    verb: `Take back ${counted(back.length, 'record')}`,
    count: back.length,
    consequences: [
      ...said,
      ...(left.length
        ? [`Left as now, because something was done since: ${counted(left.length, 'record')}.`]
        : []),
    ],
    rows: shown.map(({ why }, i) => reviewRow(whole[i]!, why, why === null)),
    more: Math.max(0, left.length + back.length - from - PAGE_ROWS),
  };
}

function reviewRow({ id, value, fields }: IncomingRecord, exception: string | null, canLeaveOut: boolean) {
  const brief = briefOf(fields.value.marc);
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
  const what = await acceptance(services, id);
  const said = (n: number) => `Took back ${counted(n, 'record')} of ${quoted(delivery.name)}`;
  const leaveOut = new Set(run.work.leaveOut as number[]);
  const totals = await inChunks(services, run, {
    act: 'take-back',
    delivery: id,
    which: "state <> 'waiting'",
    leaveOut,
    sentence: (t) => said(t.back ?? 0),
    async plan(chunk) {
      const here = new Set(chunk.map((c) => c.id));
      const isChosen = (r: number) => !leaveOut.has(r) && (chosen.size === 0 || chosen.has(r));
      // Records that share one of the catalogue go together, although one of them stands in another chunk.
      const sharing = chunk
        .flatMap((c) => what.of.get(c.id) ?? [])
        .filter((c) => c.kind === 'record')
        .flatMap((c) => what.owners.get(c)!)
        .filter((other) => !here.has(other));
      const others = await services.store.readMany('incoming', [...new Set(sharing)]);
      const wanted = [...chunk, ...others.filter((r) => r.value.state !== 'waiting')].filter((r) =>
        isChosen(r.id),
      );
      const planned = await plan(services, what, wanted);
      return {
        changes: planned.changes,
        totals: {
          back: planned.back.length,
          left: planned.left.filter((l) => here.has(l.row.id)).length,
        },
      };
    },
  });
  await markTakenBack(services, run, id);
  const left = totals.left
    ? ` ${counted(totals.left, 'record')} stayed, because something was done with them since.`
    : '';
  return `${said(totals.back ?? 0)}.${left}`;
});

/** An entry of accepting of which nothing is left is taken back; there is nothing more to take back from it. */
async function markTakenBack({ store }: Services, run: JobRun, delivery: number): Promise<void> {
  const entry = (
    await store.row<{ entry: number | null }>('SELECT entry FROM jobs WHERE id = :id', { id: run.id })
  )?.entry;
  if (!entry) return;
  await store.write((tx) =>
    store.run(
      `UPDATE daybook SET undone_by = :entry WHERE act = 'accept' AND undone_by IS NULL AND id < :entry
         AND id IN (SELECT o.entry FROM incoming i CROSS JOIN daybook_objects o ON o.kind = 'incoming' AND o.object = i.id WHERE i.delivery = :delivery)
         AND NOT EXISTS (SELECT 1 FROM daybook_objects o JOIN incoming i ON i.id = o.object WHERE o.kind = 'incoming' AND o.entry = daybook.id AND i.state <> 'waiting')`,
      { entry, delivery },
      tx,
    ),
  );
}
