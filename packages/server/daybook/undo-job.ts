import type { JobWork } from '../jobs/jobs';
import type { Services } from '../services';
import { commit } from '../store/commit';
import { ConflictError } from '../store/conflict';
import { entryIndex, fitted, takeable } from '../store/entry-index';
import { tellConflicts } from './daybook';

const CHUNK = 400;

/**
 * Job: takes a large entry back in chunks, each one transaction with its part of the new entry and the job's cursor. All
 * of it is looked at first; what a killed server had done already is left out when it is looked at anew. Where somebody
 * changes something meanwhile it stops and says what; what was taken back until then can be done again.
 */
export const undoLarge =
  (services: Services): JobWork =>
  async (run) => {
    const store = services.store.aside;
    const { undoes, sentence } = run.work as { undoes: number; sentence: string };
    let { done = 0, entry } = run.cursor as { done?: number; entry?: number };
    const index = await entryIndex(store, undoes);
    const { objects, conflicts } = await takeable(store, index, done > 0);
    if (conflicts.length) throw new Error(await stopped(services, conflicts, undoes));
    for (let at = 0; at < objects.length; at += CHUNK) {
      if (run.cancelled()) return null;
      const part = await fitted(store, await index.inverse(objects.slice(at, at + CHUNK)));
      const next = done + part.length;
      try {
        await commit(store, {
          act: 'undo',
          person: run.person,
          sentence,
          changes: part,
          entry,
          undoes,
          also: async (tx, e) => {
            entry = e;
            await run.keep({ done: next, entry: e }, next, tx, e);
          },
        });
      } catch (error) {
        if (!(error instanceof ConflictError)) throw error;
        const found = error.conflicts.map(({ kind, id, current }) => ({
          kind,
          id,
          expected: null,
          found: current?.value ?? null,
        }));
        throw new Error(await stopped(services, found, undoes), { cause: error });
      }
      done = next;
    }
    return `${sentence}.`;
  };

async function stopped(
  services: Services,
  conflicts: Parameters<typeof tellConflicts>[1],
  undoes: number,
): Promise<string> {
  const told = await tellConflicts(services, conflicts.slice(0, 3), undoes);
  return `Somebody changed something meanwhile. ${told.map((t) => t.message).join(' ')} What was taken back until then can be done again.`;
}
