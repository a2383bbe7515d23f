import type { Review, ReviewRow } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { groupedBarcode } from '@osier/core/barcodes';
import { counted } from '@osier/core/changes';
import type { Change, StoredObject } from '@osier/core/kinds';
import {
  acceptPlan,
  addTotals,
  canBePlannedBehind,
  NO_TOTALS,
  planning,
  rulesWith,
  type AcceptPlan,
  type AcceptTotals,
  type Incoming,
  type IncomingRecord,
  type Unwritten,
} from '@osier/core/deliveries';
import type { HouseRules } from '@osier/core/house';
import { actSentence, type Act } from '@osier/core/acts';
import { notFound } from '../http/problem';
import { reviewPage } from '../http/review-page';
import { beginReview } from '../http/reviewed';
import { patiently, type Services } from '../services';
import { deliveryJob } from './delivery-job';
import { numbersOfRoll, rollInUse } from '../suppliers/roll-in-use';
import { acceptContext } from './accept-context';
import { throughDelivery } from './in-chunks';
import { waitingRecords, withTheirFields } from './incoming-records';
import type { Store } from '../store/store';
import { numberStock } from './number-stock';
import { keptWork, leftOut, type Totals } from '../jobs/kept-work';
import { object, string } from 'yup';
import { settingsFor } from './settings';
import { errorsIn } from './queries';
import { checkFacet, underFacet } from './queries.incoming';

const recordsIn = (t: AcceptTotals) => t.added + t.replaced + t.merged + t.copiesOnly;
const totalsFrom = (t: Totals): AcceptTotals => ({ ...NO_TOTALS, ...t });

const acceptAct = (delivery: string, { meanwhile, ...t }: Totals): Act => ({
  act: 'accept',
  names: { delivery },
  counts: { ...totalsFrom(t), meanwhile },
});

const acceptWork = object({ facet: string().default(''), leaveOut: leftOut() });

/** Job: accepts a delivery chunk by chunk. */
export const acceptDelivery = deliveryJob(async (services, run, id, delivery) => {
  const { store } = services;
  const settings = settingsFor(delivery);
  const roll = await rollInUse(store, settings.roll);
  const { facet, leaveOut } = keptWork(acceptWork, run.work);
  const numbersOf = numberStock();
  const chunkOf = async (rows: readonly StoredObject<'incoming'>[], store: Store) =>
    withTheirFields(store, await listed(store, rows, facet));
  /** The numbers of the roll, where a copy wants one of them. */
  const numbersFor = async (chunk: readonly IncomingRecord[], store: Store) =>
    chunk.some((c) => c.value.copies.some((copy) => !copy.barcode)) ? numbersOfRoll(store, roll) : () => null;
  const planned = async (
    chunk: readonly IncomingRecord[],
    store: Store,
    own?: number,
    before?: Unwritten,
  ) => {
    const context = await acceptContext({ store }, chunk, settings, await numbersFor(chunk, store), own);
    // Numbers are reserved for the most a chunk can need; a gap harms nobody.
    const copies = chunk.reduce((n, c) => n + c.value.copies.length, 0);
    const marcs = [
      ...chunk.map((c) => c.fields.value.marc),
      ...[...context.held.values()].map((h) => h.value),
    ];
    const headings = marcs.reduce((n, marc) => n + context.headingsOf(marc).length, 0);
    const nextId = await numbersOf(store, {
      record: chunk.length,
      heading: headings,
      holding: copies,
      copy: copies,
    });
    const { changes, totals, left, unwritten } = acceptPlan(chunk, { ...context, nextId }, before);
    return { changes, totals: { ...totals, left: left.length }, unwritten };
  };
  const totals = await throughDelivery(services, run, {
    delivery: id,
    leaveOut: new Set(leaveOut),
    did: (t) => acceptAct(delivery.name, t),
    plan: async (rows, store, _, own) => planned(await chunkOf(rows, store), store, own),
    planBehind: async (rows, store, before, own) => {
      const chunk = await chunkOf(rows, store);
      return canBePlannedBehind(before, chunk) ? planned(chunk, store, own, before) : null;
    },
  });
  const waiting = [
    totals.left &&
      `${counted(totals.left, 'record')} stayed in the delivery and ${totals.left === 1 ? 'needs' : 'need'} another look`,
    totals.asked &&
      `${counted(totals.asked, 'record')} still ${totals.asked === 1 ? 'waits' : 'wait'} for a decision`,
  ].filter(Boolean);
  return `${actSentence(acceptAct(delivery.name, totals))}.${waiting.length ? ` ${waiting.join('; ')}.` : ''}`;
});

/** Those of some records that fall under a facet; all for ''. */
async function listed<R extends { readonly id: number }>(
  store: Services['store'],
  rows: readonly R[],
  facet: string,
): Promise<readonly R[]> {
  if (facet === '') return rows;
  const ids = new Set(
    (
      await underFacet(
        store,
        rows.map((r) => r.id),
        facet,
      )
    ).map((r) => r.id),
  );
  return rows.filter((r) => ids.has(r.id));
}

/** The review of accepting: the same plan piece by piece, with numbers that are not kept. */
export async function reviewAccept(
  services: Services,
  id: number,
  leaveOut: ReadonlySet<number>,
  facet = '',
  from = 0,
): Promise<Review> {
  checkFacet(facet);
  const patient = patiently(services);
  const { store } = patient;
  const delivery = await store.read('delivery', id);
  if (!delivery) throw notFound(`Delivery ${id}`);
  const shown = await beginReview(store);
  const settings = settingsFor(delivery.value);
  const numbers = await numbersOfRoll(store, await rollInUse(store, settings.roll));
  const plan = planning();
  const totals = { ...NO_TOTALS };
  const page = reviewPage<ReviewRow>(from);
  let [left, next] = [0, 0];
  for await (const piece of waitingRecords(store, id)) {
    const rows = await listed(
      store,
      piece.filter((r) => !leaveOut.has(r.id)),
      facet,
    );
    const context = await acceptContext(patient, rows, settings, numbers);
    const planned = plan(rows, { ...context, nextId: () => --next });
    addTotals(totals, planned.totals);
    left += planned.left.length;
    for (const { id: of, version, fields } of rows) shown.see(of, version, fields.version);
    for (const c of planned.changes) if (c.kind === 'record' && c.before !== null) shown.see(c.id, c.version);
    for (const row of await reviewRows(store, rows, planned)) {
      shown.see(row.id, row.exception);
      page.offer(row.exception !== null, () => row);
    }
  }
  const count = recordsIn(totals);
  shown.see(totals, left);
  return {
    sentence: `${counted(totals.added, 'record')} will be added, ${totals.replaced} replaced, ${totals.merged} merged, ${totals.copiesOnly} get copies only, ${totals.skipped} skipped. ${counted(totals.copies, 'copy', 'copies')} will be made.`,
    verb: 'Accept',
    noun: { one: 'record', many: 'records' },
    count,
    consequences: consequencesOf(totals, left, rulesWith((await store.house()).value, settings)),
    ...page.take(),
    token: shown.token(),
  };
}

async function reviewRows(
  store: Services['store'],
  rows: readonly IncomingRecord[],
  { changes, left }: AcceptPlan,
): Promise<ReviewRow[]> {
  const found = await errorsIn(
    store,
    rows.map((r) => r.id),
  );
  const errors = new Map(found.map((r) => [r.id, r.errors]));
  const why = new Map(left.map((l) => [l.incoming, l.why]));
  const done = new Map(
    changes.flatMap((c): [number, Incoming][] => (c.kind === 'incoming' && c.after ? [[c.id, c.after]] : [])),
  );
  const changed = new Map(
    changes.flatMap((c): [number, Change<'record'>][] =>
      c.kind === 'record' && c.before !== null ? [[c.id, c]] : [],
    ),
  );
  return rows
    .filter((r) => r.value.decision !== 'skip' && r.value.decision !== 'ask')
    .map((r) => reviewRow(r, why.get(r.id), done.get(r.id), changed, errors.get(r.id) ?? 0));
}

function reviewRow(
  { id, value, fields }: IncomingRecord,
  why: string | undefined,
  done: Incoming | undefined,
  changed: ReadonlyMap<number, Change<'record'>>,
  errors: number,
): ReviewRow {
  const { marc } = fields.value;
  const brief = briefOf(marc);
  const change = value.target !== null && value.decision !== 'add' ? changed.get(value.target) : undefined;
  const exception =
    why ??
    (change
      ? value.decision === 'merge'
        ? `Merged into record ${change.id}.`
        : `Replaces record ${change.id}.`
      : errors
        ? `${counted(errors, 'error')} found by the checks.`
        : null);
  const barcodes = (done ?? value).copies.map((c) => groupedBarcode(c.barcode));
  const copies = barcodes.length
    ? [counted(barcodes.length, 'copy', 'copies'), barcodes.slice(0, 3).join(', ')]
    : [];
  const only = value.decision === 'copies' && value.target !== null ? [`to record ${value.target}`] : [];
  return {
    id,
    label: brief.title,
    detail: [brief.author, brief.year, brief.isbn, ...copies, ...only].filter(Boolean).join(' · '),
    exception,
    before: change?.before ? { marc: change.before } : null,
    after: value.decision === 'copies' ? null : { marc: change?.after ?? marc },
    canLeaveOut: true,
  };
}

function consequencesOf(t: AcceptTotals, left: number, house: HouseRules): string[] {
  const said: string[] = [];
  const kept = house.protectedFields.length
    ? ` Our fields (${house.protectedFields.join(', ')}) and copies stay.`
    : ' Copies stay.';
  if (t.replaced) said.push(`${counted(t.replaced, 'record')} in the catalogue will be replaced.${kept}`);
  if (t.merged)
    said.push(
      `Missing fields are added to ${counted(t.merged, 'record')} of the catalogue; existing fields stay.`,
    );
  if (t.copies === 0 && t.added > 0) said.push('No copies come with these records; only titles are added.');
  if (t.newHeadings)
    said.push(
      `${counted(t.newHeadings, 'new heading')} will be made for names and subjects that are not known yet.`,
    );
  if (t.keptForms)
    said.push(
      `${counted(t.keptForms, 'name or subject', 'names and subjects')} that ${t.keptForms === 1 ? 'is a see-from gets its' : 'are see-froms get their'} kept form.`,
    );
  if (left)
    said.push(
      `${counted(left, 'record')} ${left === 1 ? 'stays' : 'stay'} in the delivery for another look.`,
    );
  if (t.asked)
    said.push(`${counted(t.asked, 'record')} ${t.asked === 1 ? 'waits' : 'wait'} for you to decide.`);
  return said;
}
