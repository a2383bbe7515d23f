import { recordKeysAnew, recordKeysAreOld } from '../projections/record-keys';
import { totals } from '../projections/counts';
import type { Services } from '../services';
import type { JobWork } from './jobs';
import { chunkCursor, keptWork } from './kept-work';

/** Who is named for work that nobody asked for. */
const OSIER = 0;

/** Begins bringing the keys of records to today's rules, where they are older and nothing is at it already. */
export async function beginRebuildingKeys({ store, jobs }: Services): Promise<void> {
  const isUnderWay = jobs.running().some((j) => j.kind === 'rebuild-keys');
  if (isUnderWay || !(await recordKeysAreOld(store))) return;
  const { records } = await totals(store);
  await jobs.begin('rebuild-keys', 'Updating the search keys of all records', OSIER, {}, records);
}

/** Job: computes the keys of all records anew; one that is cancelled, or killed, goes on at the next start. */
export const rebuildKeys =
  ({ store }: Services): JobWork =>
  async (run) => {
    const { place, done } = keptWork(chunkCursor, run.cursor);
    const n = await recordKeysAnew(
      store.aside,
      { place, done },
      (at, so, tx) => run.keep({ place: at, done: so }, so, tx),
      run.cancelled,
    );
    return run.cancelled() ? null : `Updated the search keys of ${n.toLocaleString('en-GB')} records.`;
  };
