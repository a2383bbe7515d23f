import type { Review } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { counted, update, type Versioned } from '@osier/core/changes';
import type { Incoming } from '@osier/core/deliveries';
import { quoted } from '../daybook/sentences';
import type { Services } from '../services';
import { deliveryJob } from './delivery-job';
import { notFound } from '../http/problem';
import type { Store } from '../store/store';
import { checkedCopies, copiesAfter } from './copies';
import { inChunks } from './in-chunks';
import { copyWork, settingsFor, supplierOf, whole, type CopyWork } from './settings';
import { consequencesOf, treatmentOf, type Treatment, type TreatmentWork } from './treatments';

const SHOWN = 200;

/** What the treatment does to each record. The review and the act both come from here. */
async function cleaned(
  store: Store,
  rows: readonly Versioned<Incoming>[],
  treatment: Treatment,
  work: CopyWork,
) {
  const treated = rows.flatMap((row) => {
    const { marc, touched } = treatment.treat(row.value.marc);
    if (touched.length === 0) return [];
    const value = whole(row.value);
    return [{ row, value, marc, touched, ...copiesAfter(value.marc, marc, value.copies, work) }];
  });
  const anew = treated.filter((t) => t.anew);
  const checked = await checkedCopies(
    store,
    work,
    anew.map((t) => ({ seq: t.value.seq, copies: t.copies })),
  );
  const copies = new Map(anew.map((t, i) => [t.row.id, checked[i]!]));
  return treated.map((t) => ({
    row: t.row,
    touched: t.touched,
    change: update<Incoming>('incoming', t.row, {
      ...t.value,
      marc: t.marc,
      recipe: treatment.name,
      copies: copies.get(t.row.id) ?? t.copies,
    }),
  }));
}

export const cleanDelivery = deliveryJob(async (services, run, id, delivery) => {
  const treatment = await treatmentOf(run.work, services.store, supplierOf(delivery));
  const work = await copyWork(services.store, settingsFor(delivery));
  const totals = await inChunks(services, run, {
    act: 'clean',
    delivery: id,
    leaveOut: new Set(run.work.leaveOut as number[]),
    sentence: (t) =>
      `Ran “${treatment.name}” over ${quoted(delivery.name)}: ${counted(t.changed ?? 0, 'record')} changed`,
    plan: async (chunk) => {
      const rows = await cleaned(services.store, chunk, treatment, work);
      return { changes: rows.map((r) => r.change), totals: { changed: rows.length } };
    },
  });
  return totals.changed
    ? `“${treatment.name}” changed ${counted(totals.changed, 'record')}.`
    : `“${treatment.name}” had nothing to change.`;
});

export async function reviewClean(services: Services, id: number, work: TreatmentWork): Promise<Review> {
  const waiting = await services.store.select(
    'incoming',
    "delivery = :id AND state = 'waiting' ORDER BY seq",
    { id },
  );
  const delivery = await services.store.read('delivery', id);
  if (!delivery) throw notFound(`Delivery ${id}`);
  const treatment = await treatmentOf(work, services.store, supplierOf(delivery.value));
  const copies = await copyWork(services.store, settingsFor(delivery.value));
  const rows = await cleaned(services.store, waiting, treatment, copies);
  const named = new Map(treatment.parts.map((p) => [p.key, p.sentence]));
  return {
    sentence: `“${treatment.name}” changes ${rows.length} of ${counted(waiting.length, 'waiting record')}.`,
    verb: `${work.recipe === undefined ? 'Mend' : 'Clean'} ${counted(rows.length, 'record')}`,
    count: rows.length,
    consequences: consequencesOf(treatment, rows, waiting.length),
    rows: rows.slice(0, SHOWN).map(({ row, touched, change }) => ({
      id: row.id,
      label: briefOf(row.value.marc).title,
      detail: [...new Set(touched)].map((t) => named.get(t)).join('; '),
      exception: null,
      before: { marc: row.value.marc },
      after: { marc: change.after!.marc },
      canLeaveOut: true,
    })),
    more: Math.max(0, rows.length - SHOWN),
  };
}
