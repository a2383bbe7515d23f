import { counted } from '@osier/core/changes';
import type { StoredObject } from '@osier/core/kinds';
import { newHeadings } from '../catalogue/records';
import { CHUNK, inChunks } from '../jobs/in-chunks';
import { OSIER, type JobWork } from '../jobs/jobs';
import { totals } from '../projections/counts';
import type { Services } from '../services';
import { recordsBehind } from './queries';

const MAKES_HEADINGS = 'make-headings';

/** Begins making the headings that records carry and nobody knows: those of kinds that earlier versions kept no headings of. */
export async function beginMakingHeadings({ store, jobs }: Services): Promise<void> {
  if (jobs.running().some((j) => j.kind === MAKES_HEADINGS)) return;
  const { records } = await totals(store);
  await jobs.begin(MAKES_HEADINGS, 'Making the headings that records carry', OSIER, {}, records);
}

/** Job: goes through all records, and makes a heading of whatever they carry that none knows yet. */
export const makeHeadings =
  (services: Services): JobWork =>
  async (run) => {
    const store = services.store.aside;
    const { made = 0 } = await inChunks<StoredObject<'record'>>({ ...services, store }, run, {
      did: (t) => ({ act: 'make-headings', counts: { headings: t.made ?? 0 } }),
      next: (after, s) => recordsBehind(s, after, CHUNK),
      placeOf: (row) => row.id,
      plan: async (chunk, s) => {
        const changes = await newHeadings(
          s,
          chunk.map((r) => r.value),
        );
        return { changes, totals: { made: changes.length } };
      },
    });
    return run.cancelled() ? null : `Made ${counted(made, 'heading')} that records carry.`;
  };
