import type { Kind } from '@osier/core/kinds';
import type { Logger } from 'pino';
import { asOwnWork } from '../store/feed';
import type { Store } from '../store/store';

/** Work that goes on by itself, beside requests and jobs. */
export interface Background {
  /** Resolves when there is nothing left to do. */
  idle(): Promise<void>;
  stop(): Promise<void>;
}

/**
 * Something that is brought up to date piece by piece: `some` does a piece and gives how much that was, nought when nothing is left. A piece that takes long asks whether it
 * is to be broken off.
 */
export interface Upkeep {
  readonly name: string;
  /** After an act on which kinds there may be something to do. */
  readonly of: readonly Kind[];
  readonly some: (isStopped: () => boolean) => Promise<number>;
}

/** Keeps things up to date: what was left over from before at once, then after every act that touches it. */
export function keepingUp(store: Store, upkeep: readonly Upkeep[], log: Logger): Background {
  const works = upkeep.map((one) => keepUp(store, one, log));
  return {
    idle: async () => {
      // What was changed last may not have been told yet.
      await new Promise((resolve) => setImmediate(resolve));
      for (const work of works) await work.idle();
    },
    stop: async () => {
      for (const work of works) await work.stop();
    },
  };
}

/** Milliseconds after which work that failed is tried again; twice as long each time, up to the longest. */
const [AGAIN, LONGEST] = [1000, 60_000];

function keepUp(store: Store, { name, of, some }: Upkeep, log: Logger): Background {
  let stopped = false;
  let asked = false;
  let running: Promise<void> | null = null;
  let again: ReturnType<typeof setTimeout> | undefined;
  let failures = 0;
  async function work(): Promise<void> {
    try {
      do {
        asked = false;
        while (!stopped && (await some(() => stopped)) > 0);
      } while (asked && !stopped);
      failures = 0;
    } catch (error) {
      if (stopped) return;
      log.error({ err: error }, `${name} failed`);
      again = setTimeout(start, Math.min(LONGEST, AGAIN * 2 ** failures++));
    } finally {
      // At once, so that what is asked for from now on begins anew.
      running = null;
    }
  }
  function start(): void {
    if (stopped) return;
    clearTimeout(again);
    asked = true;
    running ??= asOwnWork(async () => {
      // Not before it is known as running.
      await Promise.resolve();
      await work();
    });
  }
  const leave = store.feed.listen(({ kinds }) => {
    if (of.some((kind) => kind in kinds)) start();
  });
  start();
  return {
    idle: async () => {
      while (running) await running;
    },
    stop: async () => {
      stopped = true;
      clearTimeout(again);
      leave();
      await running;
    },
  };
}
