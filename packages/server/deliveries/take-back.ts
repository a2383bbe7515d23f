import type { Review, ReviewRow } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { groupedBarcode } from '@osier/core/barcodes';
import { counted } from '@osier/core/changes';
import type { ChangeSet, StoredObject } from '@osier/core/kinds';
import type { IncomingRecord } from '@osier/core/deliveries';
import { headingIdentity, headingsOf } from '@osier/core/headings';
import { dueOf } from '@osier/core/holdings';
import { tellConflicts } from '../daybook/tell-conflicts';
import { actSentence, type Act } from '@osier/core/acts';
import type { LoanAnswers } from '../loans/ports';
import { reviewPage } from '../http/review-page';
import { beginReview } from '../http/reviewed';
import type { JobRun } from '../jobs/jobs';
import { patiently, type Services } from '../services';
import { keyOf } from '../store/entry-parts';
import type { Store } from '../store/store';
import type { EntryIndex, Indexed } from '../store/entry-index';
import { takeable } from '../store/takeable';
import { undoPlan } from '../store/undo';
import { acceptance, acceptedRows, madeCopies, type Acceptance } from './acceptance';
import { deliveryJob } from './delivery-job';
import { throughDelivery } from './in-chunks';
import { keptWork, leftOut, type Totals } from '../jobs/kept-work';
import { object } from 'yup';
import { withTheirFields } from './incoming-records';
import { markUndone } from './queries';

/** What taking back some accepted records does, and what stays because something stands in the way. */
interface Plan {
  readonly changes: ChangeSet;
  /** New headings of the records that go. */
  readonly made: ReadonlySet<Indexed>;
  /** Incoming records that go back to waiting. */
  readonly back: readonly StoredObject<'incoming'>[];
  /** Records that stay accepted, each with the sentences why. */
  readonly left: readonly { readonly row: StoredObject<'incoming'>; readonly why: readonly string[] }[];
}

/** Plans taking back these records out of all that were accepted; `rows` as they are now. */
async function plan(
  services: { readonly store: Store },
  what: Acceptance,
  rows: readonly StoredObject<'incoming'>[],
  loans: LoanAnswers,
): Promise<Plan> {
  const { store } = services;
  const { index, of, owners, headings } = what;
  const mine = [...new Set(rows.flatMap((r) => of.get(r.id) ?? []))];
  const live = await stillAccepted(
    store,
    mine.flatMap((o) => owners.get(keyOf(o)) ?? []),
  );
  const ownersNow = mine.map((o) => [o, (owners.get(keyOf(o)) ?? []).filter((id) => live.has(id))] as const);
  const carried = await headingsCarried(index, mine);
  const why = new Map<number, Set<string>>();
  const tell = (id: number, said: string) => why.set(id, (why.get(id) ?? new Set()).add(said));
  let going = new Set(rows.map((r) => r.id));
  for (const said of onLoan(loans, rows)) tell(said.id, said.why);
  for (;;) {
    going = new Set([...going].filter((id) => !why.has(id)));
    // A record that several of the file were merged into goes back with all of them, or not at all.
    for (const [o, ids] of ownersNow)
      if (o.kind === 'record' && ids.some((id) => going.has(id)) && !ids.every((id) => going.has(id))) {
        const others = ids.filter((x) => !going.has(x)).map((x) => live.get(x));
        for (const id of ids.filter((x) => going.has(x)))
          tell(
            id,
            `Record ${o.id} also has record ${others.join(', ')} of this file in it; undo them together.`,
          );
      }
    const taken = ownersNow.flatMap(([o, ids]) =>
      ids.length > 0 && ids.every((id) => going.has(id)) ? [o] : [],
    );
    const made = new Set(taken.flatMap((o) => carried.get(o) ?? []).flatMap((k) => headings.get(k) ?? []));
    const planned = await undoPlan(store, index, { together: [...taken, ...made] });
    const conflicts = planned.conflicts.filter((c) => c.kind !== 'heading');
    for (const c of conflicts) {
      const [told] = await tellConflicts(services, [c], 0);
      for (const id of owners.get(keyOf(c)) ?? []) if (told) tell(id, told.message);
    }
    const next = [...going].filter((id) => !why.has(id));
    if (next.length === going.size) {
      const stuck = new Set(planned.conflicts.filter((c) => c.kind === 'heading').map((c) => c.id));
      return {
        changes: planned.changes.filter((c) => !(c.kind === 'heading' && stuck.has(c.id))),
        made,
        back: rows.filter((r) => going.has(r.id)),
        left: rows.filter((r) => why.has(r.id)).map((row) => ({ row, why: [...(why.get(row.id) ?? [])] })),
      };
    }
  }
}

/** The places in the file of those that were not taken back before: the others have no part in it any more. */
async function stillAccepted(store: Store, ids: readonly number[]): Promise<Map<number, number>> {
  const rows = await store.readMany('incoming', [...new Set(ids)]);
  return new Map(rows.filter((r) => r.value.state !== 'waiting').map((r) => [r.id, r.value.seq]));
}

/** What the headings of records are known by, as accepting left the records. */
async function headingsCarried(index: EntryIndex, of: readonly Indexed[]): Promise<Map<Indexed, string[]>> {
  const records = of.filter((o) => o.kind === 'record');
  const inverse = await index.inverse(records);
  return new Map(
    records.map((o, i) => {
      const left = inverse[i];
      const marc = left?.kind === 'record' ? left.before : null;
      return [o, marc ? headingsOf(marc).map(headingIdentity) : []];
    }),
  );
}

/** The barcodes of the copies that were made with these records. */
const barcodesOf = (rows: readonly StoredObject<'incoming'>[]) =>
  rows.flatMap((r) => madeCopies(r).map((c) => ({ id: r.id, barcode: c.barcode })));

/** Copies that are lent, or of which it is not known: the books are not in the house, so that their records stay. */
function onLoan(said: LoanAnswers, rows: readonly StoredObject<'incoming'>[]): { id: number; why: string }[] {
  return barcodesOf(rows).flatMap(({ id, barcode }) => {
    const due = dueOf(said.of(barcode));
    if (due === '') return [];
    const why =
      due === null
        ? 'The loans desk does not answer, so it is not known whether its copies are lent.'
        : `Copy ${groupedBarcode(barcode)} is on loan until ${due}.`;
    return [{ id, why }];
  });
}

/** Records that share one of the catalogue go together, although one of them stands in another piece. */
async function withSharing(
  store: Store,
  { of, owners }: Acceptance,
  piece: readonly StoredObject<'incoming'>[],
): Promise<StoredObject<'incoming'>[]> {
  const here = new Set(piece.map((c) => c.id));
  const sharing = piece
    .flatMap((c) => of.get(c.id) ?? [])
    .filter((o) => o.kind === 'record')
    .flatMap((o) => owners.get(keyOf(o)) ?? [])
    .filter((other) => !here.has(other));
  const others = await store.readMany('incoming', [...new Set(sharing)]);
  return [...piece, ...others.filter((r) => r.value.state !== 'waiting')];
}

/** What taking back will do, from the plan that does it, worked out piece by piece. None chosen means all. */
export async function reviewTakeBack(
  quick: Services,
  delivery: number,
  ids: readonly number[],
  from = 0,
): Promise<Review> {
  const services = patiently(quick);
  const { store } = services;
  const shown = await beginReview(store);
  const what = await acceptance(services, delivery);
  const chosen = new Set(ids);
  const page = reviewPage<StoredObject<'incoming'> & { readonly why: string | null }>(from);
  const seen = new Set<number>();
  const made = new Set<Indexed>();
  const touched = new Set<number>();
  const gone = { record: 0, copy: 0 };
  let [back, left, restored] = [0, 0, 0];
  for await (const piece of acceptedRows(store, delivery)) {
    const rows = (await withSharing(store, what, piece)).filter(
      (r) => !seen.has(r.id) && (chosen.size === 0 || chosen.has(r.id)),
    );
    if (rows.length === 0) continue;
    for (const r of rows) seen.add(r.id);
    const said = await services.loans.ask(barcodesOf(rows).map((c) => c.barcode));
    const planned = await plan(services, what, rows, said);
    for (const c of planned.made) made.add(c);
    for (const { kind, id, after } of planned.changes) {
      if (kind === 'record') touched.add(id);
      if (kind === 'record' && after !== null) restored++;
      else if (after === null && (kind === 'record' || kind === 'copy')) gone[kind]++;
    }
    for (const { row, why } of planned.left) page.offer(true, () => ({ ...row, why: why.join(' ') }));
    for (const row of planned.back) page.offer(false, () => ({ ...row, why: null }));
    for (const { id, version } of planned.back) shown.see(id, version);
    for (const { row, why } of planned.left) shown.see(row.id, row.version, why);
    back += planned.back.length;
    left += planned.left.length;
  }
  const headings = await headingsThatGo(store, what.index, [...made], touched);
  const out = [
    gone.record && counted(gone.record, 'record'),
    gone.copy && counted(gone.copy, 'copy', 'copies'),
    headings && `${counted(headings, 'heading')} that nothing else has`,
  ].filter(Boolean);
  const { rows, more } = page.take();
  const whole = await withTheirFields(store, rows);
  return {
    sentence: `${counted(back, 'record')} ${back === 1 ? 'goes' : 'go'} back to waiting in this delivery.`,
    verb: 'Undo',
    noun: { one: 'record', many: 'records' },
    count: back,
    consequences: [
      ...(out.length ? [`Removed from the catalogue: ${out.join(', ')}.`] : []),
      ...(restored ? [`Restored to before the delivery: ${counted(restored, 'record')}.`] : []),
      ...(left ? [`Unchanged, because they were edited since: ${counted(left, 'record')}.`] : []),
    ],
    rows: whole.map((row, i) => reviewRow(row, rows[i]!.why)),
    more,
    token: shown.token(),
  };
}

/** How many new headings go with all these records; those that another record has by now stay. */
async function headingsThatGo(
  store: Store,
  index: EntryIndex,
  made: readonly Indexed[],
  touched: ReadonlySet<number>,
): Promise<number> {
  const { objects, conflicts } = await takeable(store, index, { together: made, alsoTouched: touched });
  const stuck = new Set(conflicts.map(keyOf));
  return objects.filter((o) => !stuck.has(keyOf(o))).length;
}

function reviewRow({ id, value, fields }: IncomingRecord, why: string | null): ReviewRow {
  const brief = briefOf(fields.value.marc);
  return {
    id,
    label: brief.title,
    detail: [brief.author, brief.year, ...(value.record ? [`record ${value.record}`] : [])]
      .filter(Boolean)
      .join(' · '),
    exception: why,
    before: { text: value.state === 'skipped' ? 'skipped' : `record ${value.record}` },
    after: { text: why ? 'stays' : 'waiting' },
    canLeaveOut: why === null,
  };
}

const takeBackWork = object({ incoming: leftOut(), leaveOut: leftOut() });

/** Job: takes records back in chunks, each with all that came with it; the others stay, and the job says how many. */
export const takeBack = deliveryJob(async (services, run, id, delivery) => {
  const asked = keptWork(takeBackWork, run.work);
  const chosen = new Set(asked.incoming);
  const what = await acceptance(services, id);
  const did = (t: Totals): Act => ({
    act: 'take-back',
    names: { delivery: delivery.name },
    counts: { records: t.back ?? 0, meanwhile: t.meanwhile },
  });
  const leaveOut = new Set(asked.leaveOut);
  const totals = await throughDelivery<LoanAnswers>(services, run, {
    delivery: id,
    waits: false,
    leaveOut,
    did,
    ask: async (chunk) => {
      const all = await withSharing(services.store, what, chunk);
      return services.loans.ask(barcodesOf(all).map((c) => c.barcode));
    },
    async plan(chunk, store, said) {
      const here = new Set(chunk.map((c) => c.id));
      const isChosen = (r: number) => !leaveOut.has(r) && (chosen.size === 0 || chosen.has(r));
      const wanted = (await withSharing(store, what, chunk)).filter((r) => isChosen(r.id));
      const planned = await plan({ store }, what, wanted, said);
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
    ? ` ${counted(totals.left, 'record')} stayed, because they were edited since.`
    : '';
  return `${actSentence(did(totals))}.${left}`;
});

/** An entry of accepting of which nothing is left is taken back; there is nothing more to take back from it. */
async function markTakenBack({ store }: Services, run: JobRun, delivery: number): Promise<void> {
  const entry = (await store.table('jobs').first({ where: { id: run.id } }))?.entry;
  if (!entry) return;
  await store.write((tx) => markUndone(store, delivery, entry, tx));
}
