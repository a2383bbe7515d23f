import type { Kind } from '@osier/core/kinds';
import { EventEmitter } from 'node:events';
import type { ChangesByKind } from './changes-by-kind';

/** Which objects an entry changed, by kind; null where they are too many to be named. */
export interface Changed {
  readonly entry: number;
  readonly kinds: Readonly<Partial<Record<Kind, readonly number[] | null>>>;
}

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
    tell: (changed) => void events.emit('changed', changed),
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
