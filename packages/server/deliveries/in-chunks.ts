import type { Act } from '@osier/core/acts';
import type { StoredObject } from '@osier/core/kinds';
import { CHUNK, inChunks as throughChunks, type ChunkPlan, type ChunkWork } from '../jobs/in-chunks';
import type { Totals } from '../jobs/kept-work';
import type { JobRun } from '../jobs/jobs';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { incomingBehind } from './queries';

interface DeliveryWork<A, W> {
  readonly delivery: number;
  readonly leaveOut: ReadonlySet<number>;
  ask?(chunk: readonly StoredObject<'incoming'>[]): Promise<A>;
  plan(
    chunk: readonly StoredObject<'incoming'>[],
    store: Store,
    asked: A,
    own?: number,
  ): Promise<ChunkPlan<W>>;
  planBehind?: ChunkWork<StoredObject<'incoming'>, A, W>['planBehind'];
  /** Whether it goes through the records that wait, as it does when this is absent, or through the others. */
  readonly waits?: boolean;
  did(totals: Totals): Act;
}

/** Goes through a delivery's records in the order of the file; those left out are passed over. */
export const throughDelivery = <A = void, W = unknown>(
  services: Services,
  run: JobRun,
  work: DeliveryWork<A, W>,
): Promise<Totals> => {
  const kept = (chunk: readonly StoredObject<'incoming'>[]) => chunk.filter((c) => !work.leaveOut.has(c.id));
  return throughChunks<StoredObject<'incoming'>, A, W>(services, run, {
    did: (totals) => work.did(totals),
    next: (after, store) =>
      incomingBehind(store, work.delivery, { waits: work.waits ?? true, after, atMost: CHUNK }),
    placeOf: (row) => row.value.seq,
    objectsOf: ({ id, value: { target } }) => [
      ['incoming', id],
      ['fields', id],
      ...(target === null ? [] : [['record', target] as const]),
    ],
    ...(work.ask && { ask: (chunk) => work.ask!(kept(chunk)) }),
    plan: (chunk, store, asked, own) => work.plan(kept(chunk), store, asked, own),
    ...(work.planBehind && {
      planBehind: (chunk, store, unwritten, own) => work.planBehind!(kept(chunk), store, unwritten, own),
    }),
  });
};
