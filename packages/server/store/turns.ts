import { setImmediate } from 'node:timers/promises';
import type { Transaction } from './database';
import type { Store } from './store';

/** Work within a transaction, of which each piece is written when all before it is. */
export interface Turns {
  /**
   * Begins a piece: what it computes before it first asks the database is computed while the pieces before it are written. Whoever else
   * has something to do comes first then.
   */
  begin<T>(work: (store: Store, tx: Transaction) => Promise<T>): Promise<Begun<T>>;
  /** Waits for all pieces. Throws what the first of them that failed has thrown; those behind it have written nothing. */
  end(): Promise<void>;
}

/** A piece that has begun. */
export interface Begun<T> {
  readonly done: Promise<T>;
}

/** Pieces of work within a transaction in their order. */
export function inTurns(store: Store, tx: Transaction): Turns {
  let before: Promise<unknown> = Promise.resolve();
  return {
    async begin(work) {
      const turn = before;
      const mine: Transaction = {
        ...tx,
        ready: async () => {
          await turn;
          return tx.ready();
        },
      };
      const done = work(store.within(mine), mine);
      // A piece that writes nothing is over at once: those behind it wait for what is before it all the same.
      before = turn.then(() => done);
      // Told by `end`.
      for (const promise of [before, done]) promise.catch(() => undefined);
      await setImmediate();
      return { done };
    },
    async end() {
      await before;
    },
  };
}
