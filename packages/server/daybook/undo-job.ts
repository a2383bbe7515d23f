import { actSentence, type Act } from '@osier/core/acts';
import { mixed, number, object, string } from 'yup';
import { JobStopped, type JobWork } from '../jobs/jobs';
import { chunkCursor, keptWork } from '../jobs/kept-work';
import type { Services } from '../services';
import { tryPlan } from '../store/commit';
import type { Transaction } from '../store/database';
import { actUndoing } from '../store/kept-acts';
import { entryIndex } from '../store/entry-index';
import { takeable } from '../store/takeable';
import type { Store } from '../store/store';
import { undoPlan } from '../store/undo';
import { tellConflicts } from './tell-conflicts';

const CHUNK = 400;
const undoWork = object({
  undoes: number().integer().required(),
  did: mixed<Act>().optional(),
  sentence: string().optional(),
});

/**
 * Job: takes a large entry back in chunks, each one transaction with its part of the new entry and the job's cursor. All
 * of it is looked at first; what a killed server had done already is left out when it is looked at anew. Where somebody
 * changes something meanwhile it stops and says what; what was taken back until then can be done again.
 */
export const undoLarge =
  (services: Services): JobWork =>
  async (run) => {
    const store = services.store.aside;
    const { undoes, ...kept } = keptWork(undoWork, run.work);
    const did = kept.did ?? (await actUndoing(store, undoes));
    let { done, entry } = keptWork(chunkCursor, run.cursor);
    const index = await entryIndex(store, [undoes]);
    const { objects, conflicts } = await takeable(store, index, { begun: done > 0 });
    if (conflicts.length) throw new JobStopped(await stopped(services, conflicts, undoes));
    for (let at = 0; at < objects.length; at += CHUNK) {
      if (run.cancelled()) return null;
      const piece = objects.slice(at, at + CHUNK);
      const made = await tryPlan(store, run.person, async (s) => {
        const now = await undoPlan(s, index, { begun: done > 0, among: piece });
        if (now.conflicts.length) throw new JobStopped(await stopped({ store: s }, now.conflicts, undoes));
        const next = done + piece.length;
        return {
          did,
          changes: now.changes,
          entry,
          undoes,
          mayBeNothing: true,
          next,
          also: (tx: Transaction, e: number | null) =>
            run.keep({ done: next, entry: e ?? undefined }, next, tx, e ?? undefined),
        };
      });
      entry = made.entry ?? undefined;
      done = made.next;
    }
    return `${actSentence(did)}.`;
  };

async function stopped(
  services: { readonly store: Store },
  conflicts: Parameters<typeof tellConflicts>[1],
  undoes: number,
): Promise<string> {
  const told = await tellConflicts(services, conflicts.slice(0, 3), undoes);
  return `Somebody changed something meanwhile. ${told.map((t) => t.message).join(' ')} What was undone until then can be redone.`;
}
