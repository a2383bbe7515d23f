import type { Versioned } from '@osier/core/changes';
import type { Incoming } from '@osier/core/deliveries';
import { CHUNK, inChunks as throughChunks, type ChunkPlan, type Totals } from '../jobs/in-chunks';
import type { JobRun } from '../jobs/jobs';
import type { Services } from '../services';

interface DeliveryWork {
  readonly act: string;
  readonly delivery: number;
  readonly leaveOut: ReadonlySet<number>;
  plan(chunk: readonly Versioned<Incoming>[]): Promise<ChunkPlan>;
  /** Which records it goes through, as a condition on their columns; those that wait when absent. */
  readonly which?: string;
  sentence(totals: Totals): string;
}

/** Goes through a delivery's records in the order of the file; those left out are passed over. */
export const inChunks = (services: Services, run: JobRun, work: DeliveryWork): Promise<Totals> =>
  throughChunks<Versioned<Incoming>>(services, run, {
    act: work.act,
    sentence: (totals) => work.sentence(totals),
    next: (after) =>
      services.store.select(
        'incoming',
        `delivery = :delivery AND ${work.which ?? "state = 'waiting'"} AND seq > :after ORDER BY seq LIMIT ${CHUNK}`,
        { delivery: work.delivery, after },
      ),
    placeOf: (row) => row.value.seq,
    plan: (chunk) => work.plan(chunk.filter((c) => !work.leaveOut.has(c.id))),
  });
