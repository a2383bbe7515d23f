import type { StoredObject } from '@osier/core/kinds';
import { CHUNK, inChunks as throughChunks, type ChunkPlan } from '../jobs/in-chunks';
import type { Totals } from '../jobs/kept-work';
import type { JobRun } from '../jobs/jobs';
import type { Services } from '../services';
import type { Store } from '../store/store';

interface DeliveryWork<A> {
  readonly act: string;
  readonly delivery: number;
  readonly leaveOut: ReadonlySet<number>;
  ask?(chunk: readonly StoredObject<'incoming'>[]): Promise<A>;
  plan(chunk: readonly StoredObject<'incoming'>[], store: Store, asked: A): Promise<ChunkPlan>;
  /** Which records it goes through, as a condition on their columns; those that wait when absent. */
  readonly which?: string;
  sentence(totals: Totals): string;
}

/** Goes through a delivery's records in the order of the file; those left out are passed over. */
export const inChunks = <A = void>(
  services: Services,
  run: JobRun,
  work: DeliveryWork<A>,
): Promise<Totals> => {
  const kept = (chunk: readonly StoredObject<'incoming'>[]) => chunk.filter((c) => !work.leaveOut.has(c.id));
  return throughChunks<StoredObject<'incoming'>, A>(services, run, {
    act: work.act,
    sentence: (totals) => work.sentence(totals),
    next: (after, store) =>
      store.select(
        'incoming',
        `delivery = :delivery AND ${work.which ?? "state = 'waiting'"} AND seq > :after ORDER BY seq LIMIT ${CHUNK}`,
        { delivery: work.delivery, after },
      ),
    placeOf: (row) => row.value.seq,
    ...(work.ask && { ask: (chunk) => work.ask!(kept(chunk)) }),
    plan: (chunk, store, asked) => work.plan(kept(chunk), store, asked),
  });
};
