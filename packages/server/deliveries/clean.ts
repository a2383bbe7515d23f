import type { Review, ReviewRow } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { counted } from '@osier/core/changes';
import { withFields, type IncomingRecord } from '@osier/core/deliveries';
import type { Services } from '../services';
import { deliveryJob } from './delivery-job';
import { notFound } from '../http/problem';
import { reviewPage } from '../http/review-page';
import { beginReview } from '../http/reviewed';
import type { Store } from '../store/store';
import { checkedCopies, copiesAfter } from './copies';
import { leftMeanwhile } from '@osier/core/acts';
import { throughDelivery } from './in-chunks';
import { waitingRecords, withTheirFields } from './incoming-records';
import { copyWork, settingsFor, supplierOf, type CopyWork } from './settings';
import { keptWork, leftOut } from '../jobs/kept-work';
import { array, object, string } from 'yup';
import { consequencesOf, treatmentOf, type Treatment, type TreatmentWork } from '../recipes/treatments';

/** What the treatment does to each record. The review and the act both come from here. */
async function cleaned(store: Store, rows: readonly IncomingRecord[], treatment: Treatment, work: CopyWork) {
  const treated = rows.flatMap((row) => {
    const before = row.fields.value.marc;
    const { marc, touched } = treatment.treat(before);
    if (touched.length === 0) return [];
    return [{ row, marc, touched, ...copiesAfter(before, marc, row.value.copies, work) }];
  });
  const anew = treated.filter((t) => t.anew);
  const checked = await checkedCopies(
    store,
    work,
    anew.map((t) => ({ seq: t.row.value.seq, copies: t.copies })),
  );
  const copies = new Map(anew.map((t, i) => [t.row.id, checked[i]!]));
  return treated.map(({ row, marc, touched, copies: same }) => ({
    row,
    marc,
    touched,
    changes: withFields(
      row,
      { marc, recipe: treatment.name },
      { ...row.value, copies: copies.get(row.id) ?? same },
    ),
  }));
}

const cleanWork = object({
  recipe: string().optional(),
  rules: array(string().required()).optional(),
  leaveOut: leftOut(),
});

/** Job: cleans a delivery chunk by chunk. */
export const cleanDelivery = deliveryJob(async (services, run, id, delivery) => {
  const { store } = services;
  const asked = keptWork(cleanWork, run.work);
  const treatment = await treatmentOf(asked, store, supplierOf(delivery));
  const work = await copyWork(store, settingsFor(delivery));
  const totals = await throughDelivery(services, run, {
    delivery: id,
    leaveOut: new Set(asked.leaveOut),
    did: (t) => ({
      act: 'clean',
      names: { recipe: treatment.name, delivery: delivery.name },
      counts: { changed: t.changed ?? 0, meanwhile: t.meanwhile },
    }),
    plan: async (chunk, store) => {
      const rows = await cleaned(store, await withTheirFields(store, chunk), treatment, work);
      return { changes: rows.flatMap((r) => r.changes), totals: { changed: rows.length } };
    },
  });
  return totals.changed
    ? `“${treatment.name}” changed ${counted(totals.changed, 'record')}${leftMeanwhile(totals.meanwhile)}.`
    : `“${treatment.name}” had nothing to change.`;
});

/** The review of it, worked out piece by piece. */
export async function reviewClean(
  services: Services,
  id: number,
  work: TreatmentWork,
  from = 0,
): Promise<Review> {
  const store = services.store.aside;
  const delivery = await store.read('delivery', id);
  if (!delivery) throw notFound(`Delivery ${id}`);
  const shown = await beginReview(store);
  const treatment = await treatmentOf(work, store, supplierOf(delivery.value));
  const copies = await copyWork(store, settingsFor(delivery.value));
  const named = new Map(treatment.parts.map((p) => [p.key, p.sentence]));
  const touched: (readonly string[])[] = [];
  const page = reviewPage<ReviewRow>(from);
  let waiting = 0;
  for await (const piece of waitingRecords(store, id)) {
    waiting += piece.length;
    for (const c of await cleaned(store, piece, treatment, copies)) {
      touched.push(c.touched);
      shown.see(c.row.id, c.row.version, c.row.fields.version, c.touched);
      page.offer(false, () => ({
        id: c.row.id,
        label: briefOf(c.row.fields.value.marc).title,
        detail: [...new Set(c.touched)].map((t) => named.get(t)).join('; '),
        exception: null,
        before: { marc: c.row.fields.value.marc },
        after: { marc: c.marc },
        canLeaveOut: true,
      }));
    }
  }
  return {
    sentence: `“${treatment.name}” changes ${touched.length} of ${counted(waiting, 'waiting record')}.`,
    verb: work.recipe === undefined ? 'Fix' : 'Clean',
    noun: { one: 'record', many: 'records' },
    count: touched.length,
    consequences: consequencesOf(treatment, touched, waiting),
    ...page.take(),
    token: shown.token(),
  };
}
