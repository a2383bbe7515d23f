import { counted } from '@osier/core/changes';
import { newHeadings } from '../catalogue/records';
import { inChunks } from '../jobs/in-chunks';
import { OSIER, type JobWork } from '../jobs/jobs';
import type { Services } from '../services';
import { lastRecord, recordsWithoutHeadings } from './queries';

const MAKES_HEADINGS = 'make-headings';
/** Numbers of records that are looked through in one transaction. */
const AT_ONCE = 500;

/** Begins making the headings that records carry and nobody knows: those of kinds that earlier versions kept no headings of. */
export async function beginMakingHeadings({ store, jobs }: Services): Promise<void> {
  if (jobs.running().some((j) => j.kind === MAKES_HEADINGS)) return;
  const pieces = Math.ceil((await lastRecord(store)) / AT_ONCE);
  await jobs.begin(MAKES_HEADINGS, 'Making the headings that records carry', OSIER, {}, pieces);
}

/** Job: goes through all records by their keys, and makes a heading of whatever they carry that none is known by. */
export const makeHeadings =
  (services: Services): JobWork =>
  async (run) => {
    const store = services.store.aside;
    const last = await lastRecord(store);
    // A piece is known by the number behind which it begins and the one with which it ends.
    const { made = 0 } = await inChunks<{ readonly after: number; readonly to: number }>(
      { ...services, store },
      run,
      {
        did: (t) => ({ act: 'make-headings', counts: { headings: t.made ?? 0 } }),
        next: (after) => Promise.resolve(after < last ? [{ after, to: after + AT_ONCE }] : []),
        placeOf: (piece) => piece.to,
        plan: async ([piece], s) => {
          const ids = piece ? await recordsWithoutHeadings(s, piece.after, piece.to) : [];
          const held = await s.readMany('record', ids);
          const changes = await newHeadings(
            s,
            held.map((r) => r.value),
          );
          return { changes, totals: { made: changes.length } };
        },
      },
    );
    return run.cancelled() ? null : `Made ${counted(made, 'heading')} that records carry.`;
  };
