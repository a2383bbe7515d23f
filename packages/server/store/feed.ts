import type { Changed } from '@osier/contract';
import { AsyncLocalStorage } from 'node:async_hooks';
import { EventEmitter } from 'node:events';
import type { ChangesByKind } from './changes-by-kind';

/** Tells what was changed, once it is stored. */
export interface ChangeFeed {
  tell(changed: Changed): void;
  /** Gives the way to stop listening. */
  listen(hear: (changed: Changed) => void): () => void;
}

/** So many ids of a kind are named. */
const NAMED = 500;

/** A feed within this process. */
export function changeFeed(): ChangeFeed {
  const events = new EventEmitter().setMaxListeners(0);
  return {
    tell(changed) {
      told.getStore()?.push(changed);
      // After the act has been answered for: what a listener does wrong is not the act's failure.
      setImmediate(() => events.emit('changed', changed));
    },
    listen(hear) {
      events.on('changed', hear);
      return () => void events.off('changed', hear);
    },
  };
}

/** What an entry's change set tells. */
export const changedBy = (entry: number, changes: ChangesByKind): Changed => ({
  entry,
  kinds: Object.fromEntries(
    changes.kinds.map((kind) => {
      const ids = changes.of(kind).map((c) => c.id);
      return [kind, ids.length > NAMED ? null : ids];
    }),
  ),
});

/** What the running request has changed so far. */
const told = new AsyncLocalStorage<Changed[]>();

/** Does work that goes on by itself: what it changes is not the running request's. */
export const asOwnWork = <T>(work: () => T): T => told.exit(work);

/** Whether the running work is nobody's request. */
export const isOwnWork = (): boolean => told.getStore() === undefined;

/** Does work and gives, with what it gives, what it has changed in the store. */
export async function withChanges<T>(
  work: () => T | Promise<T>,
): Promise<{ result: T; changed: readonly Changed[] }> {
  const changed: Changed[] = [];
  return { result: await told.run(changed, work), changed };
}
