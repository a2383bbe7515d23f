import type { Logger } from 'pino';
import { asOwnWork } from '../store/feed';
import type { Store } from '../store/store';
import { compareTouched, type CompareNames } from './look-alikes';

/** Work that goes on by itself, beside requests and jobs. */
export interface Background {
  /** Resolves when there is nothing left to do. */
  idle(): Promise<void>;
  stop(): Promise<void>;
}

/** Compares names as they are touched: those left over from before at once, then after every act that touches one. */
export function comparingNames(store: Store, compare: CompareNames, log: Logger): Background {
  let stopped = false;
  let asked = false;
  let running: Promise<void> | null = null;
  async function work(): Promise<void> {
    try {
      do {
        asked = false;
        while (!stopped && (await compareTouched(store, compare)) > 0);
      } while (asked && !stopped);
    } catch (error) {
      if (!stopped) log.error({ err: error }, 'comparing names failed');
    }
  }
  function start(): void {
    asked = true;
    running ??= asOwnWork(work).finally(() => {
      running = null;
    });
  }
  const leave = store.feed.listen(({ kinds }) => {
    if ('heading' in kinds || 'distinct' in kinds) start();
  });
  start();
  return {
    idle: async () => {
      // What was changed last may not have been told yet.
      await new Promise((resolve) => setImmediate(resolve));
      while (running) await running;
    },
    stop: async () => {
      stopped = true;
      leave();
      await running;
    },
  };
}
